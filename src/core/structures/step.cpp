// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/closed_forms.h"
#include "core/structures/common.h"
#include "core/structures/registry.h"
#include <cmath>
#include <fmt/format.h>

// Step: a strip across the fold that is cut from the sheet itself by two slits and pushed through,
// or a stair of several treads, each cut in the valley between the riser before it and the sheet.
// The case c = b, d = a of the parallel fold: nothing is glued, and every step shuts flat and opens
// flat whatever its sizes. In a valley a step stands up from it; over a ridge it is pushed in from
// the other side.
//
// The strip keeps its place in the flat sheet, so its panels belong to the piece they are cut from.

namespace hinge {
namespace {

constexpr ParameterSpec kStepTable[] = {
    {"position",
     {"size.step.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"length",
     {"size.step.length"},
     ParameterUnit::Millimetre,
     5,
     1000,
     40,
     ParameterRole::Gives,
     "",
     Sense::FromPlace},
    {"a", {"size.step.a", "a"}, ParameterUnit::Millimetre, 3, 1000, 30, ParameterRole::Gives, "b"},
    {"b", {"size.step.b", "b"}, ParameterUnit::Millimetre, 3, 1000, 30, ParameterRole::Gives, "a"},
    {"treads", {"size.step.treads"}, ParameterUnit::Count, 1, 8, 1, ParameterRole::Held, ""},
    {"narrow",
     {"size.step.narrow"},
     ParameterUnit::Millimetre,
     1.5,
     100,
     4,
     ParameterRole::Gives,
     ""},
};

std::vector<MendDirection> stepMends() {
  return {{{{"position", 1}}}, {{{"length", 1}}}, {{{"a", 1}, {"b", 1}}},
          {{{"a", 1}}},        {{{"b", 1}}},      {{{"position", 1}, {"length", -1}}}};
}

/// One step on a fold of the sheet, and the seats it offers. `mark` goes before the names of its
/// panels.
Seat buildStep(const RecipeInput& in, AssemblyBuilder& builder, const Seat& seat, double position,
               double length, double a, double b, int tread) {
  const auto [sa, sb] = in.seat.kind() == SeatKind::Ridge
                            ? std::array{in.sideNames[1], in.sideNames[0]}
                            : in.sideNames;
  const std::string mark = tread == 1 ? "" : fmt::format("tread-{}-", tread);
  const auto called = [&](Text label) { return tread == 1 ? label : Text("tread", tread, label); };
  const PieceIndex piece = builder.pieceOf(seat.sides[0]);
  builder.cutAcross(seat, position, position + length, {{a, position}, {a, position + length}},
                    {{b, position}, {b, position + length}});
  // In the flat sheet the strip runs from the score at a through the fold to the score at b.
  const auto onA = [&](double x, double y) {
    return Vec2((seat.sides[0].toPiece * Vec3(x, y, 0)).head<2>());
  };
  const double near = position, far = position + length,
               ridge = a - b; // distance of the ridge from the fold on side a
  const PanelIndex wallA =
      builder.panel(piece, mark + "wall-" + sa, called({"wall", sa}), PanelUse::Wall,
                    {onA(a, near), onA(ridge, near), onA(ridge, far), onA(a, far)});
  const PanelIndex wallB =
      builder.panel(piece, mark + "wall-" + sb, called({"wall", sb}), PanelUse::Wall,
                    {onA(ridge, near), onA(-b, near), onA(-b, far), onA(ridge, far)});
  // Folds are named as seen from the sheet's face, which may be the far side of this fold. Seen
  // from there the panel on side a is left of near -> far.
  const bool faceOut = seat.sides[0].toPiece.linear()(2, 2) < 0;
  const FoldSense foot = faceOut ? FoldSense::Valley : FoldSense::Mountain,
                  top = faceOut ? FoldSense::Mountain : FoldSense::Valley;
  const double shut = faceOut ? kPi : -kPi;
  const auto fold = [&](const std::string& role, const Text& label, PanelIndex first,
                        PanelIndex second, double x, FoldSense sense, double angle) {
    const Vec2 from = onA(x, near), to = onA(x, far);
    if (faceOut)
      builder.fold(mark + role, called(label), first, second, from, to, sense, angle);
    else
      builder.fold(mark + role, called(label), first, second, to, from, sense, angle);
  };
  fold("foot-" + sa, {"foot-score", sa}, seat.sides[0].panel, wallA, a, foot, shut);
  fold("ridge", "ridge", wallA, wallB, ridge, top, -shut);
  fold("foot-" + sb, {"foot-score", sb}, wallB, seat.sides[1].panel, -b, foot, shut);
  // The closed form has its strip at x = 0 by the foot of wall a and its face towards the
  // structure.
  const Iso3 strip = inverseOf(seat.sides[0].toPiece *
                               frame(Vec3(a, 0, 0), -Vec3::UnitX(), Vec3::UnitY(), -Vec3::UnitZ()));
  builder.placement(seat, {wallA, wallB}, [=](double opening) {
    auto poses = parallelFoldPoses(opening, 0, a, b, b, a);
    if (poses)
      for (Iso3& pose : *poses)
        pose = pose * strip;
    return poses;
  });
  const Vec2 x = Vec2::UnitX(), y = Vec2::UnitY();
  const auto along = [&](PanelIndex panel, double at, const Vec2& away) {
    return SeatSide{panel, seat.sides[0].toPiece * planarFrame({at, near}, away, y)};
  };
  builder.seat(mark + "ridge", called({"ridge-of", in.name()}), along(wallA, ridge, x),
               along(wallB, ridge, -x), length, 2 * kPi);
  builder.seat(mark + "valley-" + sa, valleyAt(called({"wall", sa}), in),
               sideWithin(seat.sides[0], {a, near}, x, y), along(wallA, a, -x), length, 0);
  builder.twins(wallA, wallB);
  const Seat upper =
      builder.seat(mark + "valley-" + sb, valleyAt(called({"wall", sb}), in), along(wallB, -b, x),
                   sideWithin(seat.sides[1], {b, near}, x, y), length, 0);
  builder.twinSeats(mark + "valley-" + sa, mark + "valley-" + sb);
  return upper;
}

Result<void> buildStep(const RecipeInput& in, AssemblyBuilder& builder) {
  const bool pushedIn = in.seat.kind() == SeatKind::Ridge;
  const Seat seat = pushedIn ? seenFromBelow(in.seat) : in.seat;
  const int treads = static_cast<int>(in.value("treads"));
  const double narrow = in.value("narrow");
  double position = in.value("position"), length = in.value("length");
  const double a = in.value(pushedIn ? "b" : "a"), b = in.value(pushedIn ? "a" : "b"),
               rise = a / treads, going = b / treads;
  if (length - 2 * narrow * (treads - 1) < 5)
    return Error{{"step.too-short", treads, Millimetres{narrow}}, in.item.id.text()};
  Seat on = seat;
  for (int k = 0; k < treads; ++k) {
    on = buildStep(in, builder, on, position, length, a - k * rise, going, k + 1);
    if (k == 0) {
      const auto flat = [&](double x, double y) {
        return Vec2((seat.sides[0].toPiece * Vec3(x, y, 0)).head<2>());
      };
      builder.dimension("length", on.sides[0].panel, flat(-going, position),
                        flat(-going, position + length));
      builder.dimensionOn(seat.sides[0], pushedIn ? "b" : "a", {0, position}, {a, position});
      builder.dimensionOn(seat.sides[1], pushedIn ? "a" : "b", {0, position}, {b, position});
      builder.dimensionOn(seat.sides[1], "position", {0, 0}, {0, position});
    }
    position = narrow, length -= 2 * narrow;
  }
  return builder.status();
}

Room stepRoom(const ParameterValues& v, double) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  return {get("a") + get("b"), 0, get("length")};
}

ParameterValues fitStep(const Seat& seat, const Assembly& assembly, const Settings& settings) {
  return fitToSeat(kStepTable, seat, assembly, settings, stepRoom);
}

Sketch stepSketch() {
  using L = Sketch::Line;
  const Vec2 g(0.42, 0.10), top(0.42, 0.92), out(0.96, 0.10), A(0.42, 0.66), Q(0.74, 0.66),
      B(0.74, 0.10);
  return {{{g, top, L::Use::Page},
           {g, out, L::Use::Page},
           {A, Q, L::Use::Paper},
           {Q, B, L::Use::Paper}},
          {{"a", g, A, std::nullopt}, {"b", g, B, std::nullopt}}};
}

} // namespace

const StructureKind& stepKind() {
  static const StructureKind kind{"step",     kStepTable, kOnFolds | kOneSheet,
                                  noClosures, stepMends,  buildStep,
                                  fitStep,    stepSketch};
  return kind;
}

} // namespace hinge
