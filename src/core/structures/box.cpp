// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/closed_forms.h"
#include "core/structures/common.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

// Box: the general parallel fold. A strip with two walls c, d glued at the distances a, b from the
// seat's fold; the square box and the tent are cases of it. A planar four-bar a, c, d, b.
//
// Flat frame of the piece: x along the strip with the fold to side a at 0, y along the seat's fold,
// face (+z) outside.

namespace hinge {
namespace {

constexpr ParameterSpec kBoxTable[] = {
    {"position",
     {"size.box.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"length",
     {"size.box.length"},
     ParameterUnit::Millimetre,
     5,
     1000,
     50,
     ParameterRole::Gives,
     "",
     Sense::FromPlace},
    {"a", {"size.box.a", "a"}, ParameterUnit::Millimetre, 2, 1000, 30, ParameterRole::Gives, "b"},
    {"b", {"size.box.a", "b"}, ParameterUnit::Millimetre, 2, 1000, 30, ParameterRole::Gives, "a"},
    {"c", {"size.box.c", "a"}, ParameterUnit::Millimetre, 2, 1000, 45, ParameterRole::Gives, "d"},
    {"d", {"size.box.c", "b"}, ParameterUnit::Millimetre, 2, 1000, 45, ParameterRole::Gives, "c"},
    {"tab",
     {"size.box.tab"},
     ParameterUnit::Millimetre,
     1,
     60,
     starting::kTabDepth_mm,
     ParameterRole::Held,
     "",
     Sense::Tab},
    {"half", {"size.tab.half"}, ParameterUnit::Switch, 0, 2, 0, ParameterRole::Held, ""},
};

std::vector<LinearClosure> boxClosures(double shutOpening_rad) {
  // a + c = b + d in a valley (the ridge ends away from the fold), c - a = d - b over a ridge.
  const double s = isValley(shutOpening_rad) ? 1.0 : -1.0;
  return {{{{"d", -1}, {"c", 1}, {"a", s}, {"b", -s}}, ParameterUnit::Millimetre}};
}

std::vector<MendDirection> boxMends() {
  return {{{{"position", 1}}},
          {{{"c", 1}, {"d", 1}}},
          {{{"length", 1}}},
          {{{"a", 1}, {"b", 1}}},
          {{{"tab", 1}}},
          {{{"position", 1}, {"length", -1}}},
          {{{"a", 1}, {"b", 1}, {"c", -1}, {"d", -1}}}};
}

Result<void> buildBox(const RecipeInput& in, AssemblyBuilder& builder) {
  const double position = in.value("position"), length = in.value("length");
  const double a = in.value("a"), b = in.value("b"), c = in.value("c"), d = in.value("d");
  const auto& [sa, sb] = in.sideNames;

  const PieceIndex piece = builder.piece("piece", "box");
  const PanelIndex wallA = builder.panel(piece, "wall-" + sa, Text("wall", sa), PanelUse::Wall,
                                         {{0, 0}, {c, 0}, {c, length}, {0, length}});
  const PanelIndex wallB = builder.panel(piece, "wall-" + sb, Text("wall", sb), PanelUse::Wall,
                                         {{c, 0}, {c + d, 0}, {c + d, length}, {c, length}});
  builder.twins(wallA, wallB);
  builder.fold("ridge", "ridge", wallA, wallB, {c, 0}, {c, length}, FoldSense::Mountain, -kPi);
  // Continued flat, tab a runs towards the fold of side a; tab b comes from the other side and is
  // glued mirrored.
  const Iso3 toA = planarFrame({a, position}, Vec2::UnitX(), Vec2::UnitY());
  const Iso3 toB = planarFrame({b + c + d, position}, -Vec2::UnitX(), Vec2::UnitY());
  addGluedTab(builder, in, wallA, piece, {0, length}, {0, 0}, sa, in.seat.sides[0], toA,
              std::nullopt);
  addGluedTab(builder, in, wallB, piece, {c + d, 0}, {c + d, length}, sb, in.seat.sides[1], toB,
              std::nullopt);
  builder.placement(in.seat, {wallA, wallB}, [=](double opening) {
    return parallelFoldPoses(opening, position, a, b, c, d);
  });

  builder.dimension("c", wallA, {0, length}, {c, length});
  builder.dimension("d", wallB, {c + d, length}, {c, length});
  builder.dimension("length", wallB, {c + d, 0}, {c + d, length});
  builder.dimensionOn(in.seat.sides[0], "a", {0, position}, {a, position});
  builder.dimensionOn(in.seat.sides[1], "b", {0, position}, {b, position});
  builder.dimensionOn(in.seat.sides[1], "position", {0, 0}, {0, position});

  builder.seat("ridge", Text("ridge-of", in.name()),
               sideOn(wallA, {c, 0}, -Vec2::UnitX(), Vec2::UnitY()),
               sideOn(wallB, {c, 0}, Vec2::UnitX(), Vec2::UnitY()), length, 2 * kPi);
  if (!isValley(in.seat.shutOpening_rad)) return builder.status();
  // Outside the box its walls make valleys with the pages they stand on.
  builder.seat("valley-" + sa, valleyAt(Text("wall", sa), in),
               sideWithin(in.seat.sides[0], {a, position}, Vec2::UnitX(), Vec2::UnitY()),
               sideOn(wallA, {0, 0}, Vec2::UnitX(), Vec2::UnitY()), length, 0);
  builder.seat("valley-" + sb, valleyAt(Text("wall", sb), in),
               sideOn(wallB, {c + d, 0}, -Vec2::UnitX(), Vec2::UnitY()),
               sideWithin(in.seat.sides[1], {b, position}, Vec2::UnitX(), Vec2::UnitY()), length,
               0);
  builder.twinSeats("valley-" + sa, "valley-" + sb);
  return builder.status();
}

Room boxRoom(const ParameterValues& v, double shutOpening_rad) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  const double out = isValley(shutOpening_rad) ? get("a") + get("c") : get("a") * 1.5;
  return {out, 0, get("length")};
}

ParameterValues fitBox(const Seat& seat, const Assembly& assembly, const Settings& settings) {
  return fitToSeat(kBoxTable, seat, assembly, settings, boxRoom);
}

Sketch boxSketch() {
  using L = Sketch::Line;
  const Vec2 g(0.50, 0.12), pa(0.04, 0.34), pb(0.96, 0.34), A(0.20, 0.263), B(0.80, 0.263),
      Q(0.50, 0.86);
  return {
      {{g, pa, L::Use::Page}, {g, pb, L::Use::Page}, {A, Q, L::Use::Paper}, {Q, B, L::Use::Paper}},
      {{"a", g, A, std::nullopt},
       {"b", g, B, std::nullopt},
       {"c", A, Q, std::nullopt},
       {"d", Q, B, std::nullopt}}};
}

} // namespace

const StructureKind& boxKind() {
  static const StructureKind kind{"box",    kBoxTable, kOnFolds, boxClosures,
                                  boxMends, buildBox,  fitBox,   boxSketch};
  return kind;
}

} // namespace hinge
