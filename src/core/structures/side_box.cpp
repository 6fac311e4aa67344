// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/closed_forms.h"
#include "core/structures/common.h"
#include "core/structures/registry.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <array>
#include <cmath>

// Box beside the fold: a box on one page only, pulled up by a strap from the other page. Wall and
// strap are a parallel fold (a, h, s, b); the outer wall keeps parallel to the inner one. With b =
// a h / (2 a + h) and s = a + h - b the walls stand upright when the card is open flat.
//
// Flat frame of the box: x from the left foot over the lid to the right foot, y along the fold,
// face (+z) outside. Of the strap: x from left to right, face up.

namespace hinge {
namespace {

constexpr ParameterSpec kSideBoxTable[] = {
    {"position",
     {"size.side-box.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"length",
     {"size.side-box.length"},
     ParameterUnit::Millimetre,
     5,
     1000,
     40,
     ParameterRole::Gives,
     "",
     Sense::FromPlace},
    {"a", {"size.side-box.a"}, ParameterUnit::Millimetre, 4, 1000, 36, ParameterRole::Gives, ""},
    {"w", {"size.side-box.w"}, ParameterUnit::Millimetre, 4, 1000, 28, ParameterRole::Gives, ""},
    {"h", {"size.side-box.h"}, ParameterUnit::Millimetre, 4, 1000, 36, ParameterRole::Gives, ""},
    {"b", {"size.side-box.b"}, ParameterUnit::Millimetre, 2, 1000, 12, ParameterRole::Gives, ""},
    {"s", {"size.side-box.s"}, ParameterUnit::Millimetre, 4, 1000, 60, ParameterRole::Gives, ""},
    {"tab",
     {"size.side-box.tab"},
     ParameterUnit::Millimetre,
     1,
     60,
     8,
     ParameterRole::Held,
     "",
     Sense::Tab},
    {"side",
     {"size.side-box.side"},
     ParameterUnit::Switch,
     0,
     1,
     0,
     ParameterRole::Held,
     "",
     Sense::Hand},
};

std::vector<LinearClosure> sideBoxClosures(double) {
  return {{{{"s", -1}, {"a", 1}, {"h", 1}, {"b", -1}}, ParameterUnit::Millimetre}};
}

std::vector<MendDirection> sideBoxMends() {
  return {{{{"position", 1}}},    {{{"h", 1}, {"s", 1}}},  {{{"w", 1}}},  {{{"length", 1}}},
          {{{"a", 1}, {"s", 1}}}, {{{"b", 1}, {"s", -1}}}, {{{"tab", 1}}}};
}

/// Poses of left wall, lid, right wall and strap; the box on side a (left) or b.
std::optional<std::vector<Iso3>> poses(double opening, double position, double a, double w,
                                       double h, double b, double s, bool onB) {
  const auto fold = onB ? parallelFoldPoses(opening, position, b, a, s, h)
                        : parallelFoldPoses(opening, position, a, b, h, s);
  if (!fold) return std::nullopt;
  const double S = std::sin(0.5 * opening), C = std::cos(0.5 * opening);
  const Vec3 y = Vec3::UnitY(), out(onB ? S : -S, 0, C), foot = a * out + position * y;
  // The ridge of the parallel fold is the top of the inner wall: the strip of wall a ends there.
  const Iso3& first = fold->front();
  const Vec3 top = first * Vec3(onB ? s : h, 0, 0);
  const auto from = [&](const Vec3& start, const Vec3& end, double x0) {
    const Vec3 x = (end - start).normalized();
    return frame(start - x0 * x, x, y, x.cross(y));
  };
  const Vec3 outerFoot = foot + w * out, outerTop = top + w * out;
  if (onB)
    return std::vector<Iso3>{from(foot, top, 0), from(top, outerTop, h),
                             from(outerTop, outerFoot, h + w), fold->front()};
  return std::vector<Iso3>{from(outerFoot, outerTop, 0), from(outerTop, top, h),
                           from(top, foot, h + w), from(top, b * Vec3(S, 0, C) + position * y, 0)};
}

/// Joins the strap that pulls the box up: to the other page with its face and to the lid with its
/// back.
void joinStrap(const RecipeInput& in, AssemblyBuilder& builder, const SeatSide& other,
               PanelIndex lid, PanelIndex strap) {
  const PieceIndex piece = builder.assembly().panels[strap].piece;
  const double position = in.value("position"), length = in.value("length");
  const double w = in.value("w"), h = in.value("h"), b = in.value("b"), s = in.value("s");
  const bool onB = in.value("side") != 0;
  const Vec2 x = Vec2::UnitX(), y = Vec2::UnitY();
  const Iso3 foot = other.toPiece * (onB ? planarFrame({b, position}, x, y)
                                         : planarFrame({b + s, position}, -x, y));
  const Iso3 onLid = planarFrame({onB ? h - s : h + w, 0}, x, y);
  const Vec2 nearLow(0, 0), nearHigh(0, length), farLow(s, 0), farHigh(s, length);
  const GluedTab below{strap,
                       onB ? nearHigh : farLow,
                       onB ? nearLow : farHigh,
                       "tab-strap",
                       "strap-tab",
                       other.panel,
                       foot};
  const GluedTab above{strap,
                       onB ? farLow : nearHigh,
                       onB ? farHigh : nearLow,
                       "tab-lid",
                       "lid-tab",
                       lid,
                       onLid,
                       FoldSense::Mountain,
                       0,
                       false};
  addTab(builder, in, piece, above);
  addTab(builder, in, piece, below); // last: the strap's faces stand on its foot
}

/// Where the sizes are seen: on the first wall, the lid and the strap, and on both pages.
void addDimensions(const RecipeInput& in, AssemblyBuilder& builder,
                   const std::array<PanelIndex, 3>& panels, const SeatSide& own,
                   const SeatSide& other) {
  const double position = in.value("position"), length = in.value("length"), a = in.value("a");
  const double b = in.value("b"), w = in.value("w"), h = in.value("h"), s = in.value("s");
  builder.dimension("h", panels[0], {0, length}, {h, length});
  builder.dimension("w", panels[1], {h, length}, {h + w, length});
  builder.dimension("s", panels[2], {0, 0}, {s, 0});
  builder.dimension("length", panels[1], {h + 0.5 * w, 0}, {h + 0.5 * w, length});
  builder.dimensionOn(own, "a", {0, position}, {a, position});
  builder.dimensionOn(other, "b", {0, position}, {b, position});
  builder.dimensionOn(own, "position", {0, 0}, {0, position});
}

Result<void> buildSideBox(const RecipeInput& in, AssemblyBuilder& builder) {
  const double position = in.value("position"), length = in.value("length"), a = in.value("a"),
               w = in.value("w"), h = in.value("h");
  const double b = in.value("b"), s = in.value("s");
  const bool onB = in.value("side") != 0;
  const SeatSide &own = in.seat.sides[onB ? 1 : 0], &other = in.seat.sides[onB ? 0 : 1];
  const Vec2 x = Vec2::UnitX(), y = Vec2::UnitY();
  const PieceIndex box = builder.piece("piece", "box");
  const PieceIndex strapPiece = builder.piece("strap-piece", "strap");
  const auto strip = [&](PieceIndex piece, const std::string& role, const Text& label, double from,
                         double to) {
    return builder.panel(piece, role, label, PanelUse::Wall,
                         {{from, 0}, {to, 0}, {to, length}, {from, length}});
  };
  const PanelIndex left =
      strip(box, onB ? "inner" : "outer", onB ? "inner-wall" : "outer-wall", 0, h);
  const PanelIndex lid = strip(box, "lid", "lid", h, h + w);
  const PanelIndex right =
      strip(box, onB ? "outer" : "inner", onB ? "outer-wall" : "inner-wall", h + w, 2 * h + w);
  const PanelIndex strap = strip(strapPiece, "strap", "strap", 0, in.value("s"));
  // Shut, the inner wall runs straight on into the lid and the outer wall lies under it.
  const auto shut = [](bool folded) { return folded ? -kPi : 0.0; };
  builder.fold("edge-1", onB ? "inner-edge" : "outer-edge", left, lid, {h, 0}, {h, length},
               FoldSense::Mountain, shut(!onB));
  builder.fold("edge-2", onB ? "outer-edge" : "inner-edge", lid, right, {h + w, 0}, {h + w, length},
               FoldSense::Mountain, shut(onB));
  // Both feet have their tabs under the box.
  const double all = 2 * h + w;
  const auto onOwn = [&](double foot, double flat) {
    return own.toPiece * (onB ? planarFrame({foot + flat, position}, -x, y)
                              : planarFrame({foot - flat, position}, x, y));
  };
  const double leftFoot = onB ? a : a + w, rightFoot = onB ? a + w : a;
  addTab(builder, in, box,
         {left,
          {0, length},
          {0, 0},
          onB ? "tab-inner" : "tab-outer",
          onB ? "inner-tab" : "outer-tab",
          own.panel,
          onOwn(leftFoot, 0),
          FoldSense::Mountain,
          shut(onB)});
  addTab(builder, in, box,
         {right,
          {all, 0},
          {all, length},
          onB ? "tab-outer" : "tab-inner",
          onB ? "outer-tab" : "inner-tab",
          own.panel,
          onOwn(rightFoot, all),
          FoldSense::Mountain,
          shut(!onB)});
  joinStrap(in, builder, other, lid, strap);
  const Vec2 lower(h, length), upper(h + w, 0);
  builder.faceSeats(lid, onB ? lower : upper, onB ? Vec2(h, 0) : Vec2(h + w, length));
  builder.placement(in.seat, {left, lid, right, strap},
                    [=](double opening) { return poses(opening, position, a, w, h, b, s, onB); });

  addDimensions(in, builder, {left, lid, strap}, own, other);
  const SeatSide page = sideWithin(own, {a + w, position}, x, y);
  const SeatSide wall = onB ? sideOn(right, {all, 0}, -x, y) : sideOn(left, {0, 0}, x, y);
  builder.seat("valley", valleyAt("outer-wall", in), onB ? wall : page, onB ? page : wall, length,
               0);
  return builder.status();
}

Room sideBoxRoom(const ParameterValues& v, double) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  return {get("a") + get("h") + get("w"), 0, get("length")};
}

ParameterValues fitSideBox(const Seat& seat, const Assembly& assembly, const Settings& settings) {
  ParameterValues v = fitToSeat(kSideBoxTable, seat, assembly, settings, sideBoxRoom);
  const double a = v["a"], h = v["h"];
  v["b"] = std::max(2.0, onLattice(a * h / (2 * a + h)));
  v["s"] = a + h - v["b"];
  v["tab"] = std::clamp(
      downToLattice(std::min(v["b"] - settings.foldClearance_mm, 0.5 * v["w"] - 0.5)), 1.0, 8.0);
  return v;
}

Sketch sideBoxSketch() {
  using L = Sketch::Line;
  const Vec2 g(0.62, 0.10), pa(0.04, 0.10), pb(0.96, 0.10), A(0.40, 0.10), A2(0.14, 0.10),
      up(0, 0.44), B(0.74, 0.10);
  return {{{g, pa, L::Use::Page},
           {g, pb, L::Use::Page},
           {A, A + up, L::Use::Paper},
           {A2, A2 + up, L::Use::Paper},
           {A2 + up, A + up, L::Use::Paper},
           {A + up, B, L::Use::Paper}},
          {{"a", g, A, std::nullopt},
           {"b", g, B, std::nullopt},
           {"w", A2 + up, A + up, std::nullopt},
           {"h", A2, A2 + up, std::nullopt},
           {"s", A + up, B, std::nullopt}}};
}

} // namespace

const StructureKind& sideBoxKind() {
  static const StructureKind kind{"side-box",   kSideBoxTable, kInValleys, sideBoxClosures,
                                  sideBoxMends, buildSideBox,  fitSideBox, sideBoxSketch};
  return kind;
}

} // namespace hinge
