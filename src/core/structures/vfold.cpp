// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/closed_forms.h"
#include "core/structures/common.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

// V-fold: two panels that meet in a crease through one point of the seat's fold and stand on a line
// in each side. A spherical four-bar with the angles alpha, gamma1, gamma2, beta about that point.
//
// Flat frame of the piece: apex in the origin, crease along +y, panel 1 to the left, face (+z)
// outside.

namespace hinge {
namespace {

constexpr ParameterSpec kVfoldTable[] = {
    {"position",
     {"size.vfold.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"alpha",
     {"size.vfold.alpha", "a"},
     ParameterUnit::Degree,
     5,
     175,
     45,
     ParameterRole::Gives,
     "beta"},
    {"beta",
     {"size.vfold.alpha", "b"},
     ParameterUnit::Degree,
     5,
     175,
     45,
     ParameterRole::Gives,
     "alpha"},
    {"gamma1",
     {"size.vfold.gamma1", "a"},
     ParameterUnit::Degree,
     5,
     175,
     90,
     ParameterRole::Gives,
     "gamma2"},
    {"gamma2",
     {"size.vfold.gamma1", "b"},
     ParameterUnit::Degree,
     5,
     175,
     90,
     ParameterRole::Gives,
     "gamma1"},
    {"la",
     {"size.vfold.la", "a"},
     ParameterUnit::Millimetre,
     8,
     1000,
     50,
     ParameterRole::Gives,
     "lb"},
    {"lb",
     {"size.vfold.la", "b"},
     ParameterUnit::Millimetre,
     8,
     1000,
     50,
     ParameterRole::Gives,
     "la"},
    {"lc", {"size.vfold.lc"}, ParameterUnit::Millimetre, 5, 1000, 45, ParameterRole::Gives, ""},
    {"ea",
     {"size.vfold.ea", "a"},
     ParameterUnit::Millimetre,
     0,
     1000,
     30,
     ParameterRole::Gives,
     "eb"},
    {"eb",
     {"size.vfold.ea", "b"},
     ParameterUnit::Millimetre,
     0,
     1000,
     30,
     ParameterRole::Gives,
     "ea"},
    {"open", {"size.vfold.open"}, ParameterUnit::Millimetre, 0, 500, 0, ParameterRole::Gives, ""},
    {"rise", {"size.vfold.rise"}, ParameterUnit::Millimetre, 0, 300, 8, ParameterRole::Gives, ""},
    {"top", {"size.vfold.top"}, ParameterUnit::Switch, 0, 4, 0, ParameterRole::Held, ""},
    {"tab",
     {"size.vfold.tab"},
     ParameterUnit::Millimetre,
     1,
     60,
     starting::kTabDepth_mm,
     ParameterRole::Held,
     "",
     Sense::Tab},
    {"turned",
     {"size.vfold.turned"},
     ParameterUnit::Switch,
     0,
     1,
     0,
     ParameterRole::Held,
     "",
     Sense::TurnedRound},
    {"half", {"size.tab.half"}, ParameterUnit::Switch, 0, 2, 0, ParameterRole::Held, ""},
};

struct VfoldShape {
  Vec2 foot, crease, footA, endA, outerA, footB, endB, outerB; // flat frame
  Polygon panelA, panelB;
};

Vec2 atAngle(double fromY_rad) {
  return {std::sin(fromY_rad), std::cos(fromY_rad)};
}

/// Corners between the top of the crease and the outer edge of a panel, `out` at right angles to
/// the line between them.
std::vector<Vec2> crown(int kind, const Vec2& from, const Vec2& to, const Vec2& out) {
  std::vector<Vec2> corners;
  const auto at = [&](double along, double up) {
    corners.push_back(from + along * (to - from) + up * out);
  };
  switch (kind) {
  case 1: at(0.5, 1); break;
  case 2:
    for (double t : {22.5, 45.0, 67.5, 90.0, 112.5, 135.0, 157.5})
      at(0.5 - 0.5 * std::cos(radians(t)), std::sin(radians(t)));
    break;
  case 3:
    at(0.2, 0), at(0.2, 1), at(0.4, 1), at(0.4, 0), at(0.6, 0), at(0.6, 1), at(0.8, 1), at(0.8, 0);
    break;
  case 4:
    for (int k = 1; k < 16; ++k)
      at(k / 16.0, 0.5 - 0.5 * std::cos(radians(45.0 * k)));
    break;
  default: break;
  }
  return corners;
}

VfoldShape vfoldShapeOf(const ParameterValues& v) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  const double g1 = radians(get("gamma1")), g2 = radians(get("gamma2")), open = get("open"),
               rise = get("rise");
  const int top = rise > 0 ? static_cast<int>(get("top")) : 0;
  const Vec2 dirA(-std::sin(g1), std::cos(g1)), dirB(std::sin(g2), std::cos(g2));
  VfoldShape s;
  s.foot = {0, open}, s.footA = open * dirA, s.footB = open * dirB;
  s.crease = {0, get("lc")};
  s.endA = get("la") * dirA, s.endB = get("lb") * dirB;
  s.outerA = s.endA + get("ea") * Vec2(std::cos(g1), std::sin(g1));
  s.outerB = s.endB + get("eb") * Vec2(-std::cos(g2), std::sin(g2));
  const auto panel = [&](const Vec2& foot, const Vec2& end, const Vec2& outer, bool stands,
                         double side) {
    Polygon p{s.foot, s.crease};
    const Vec2 along = (outer - s.crease).normalized();
    for (const Vec2& c : crown(top, s.crease, outer, rise * side * Vec2(along.y(), -along.x())))
      p.push_back(c);
    if (stands) p.push_back(outer);
    p.push_back(end);
    if (open > 0) p.push_back(foot);
    return p;
  };
  s.panelA = panel(s.footA, s.endA, s.outerA, get("ea") > 0, 1);
  s.panelB = panel(s.footB, s.endB, s.outerB, get("eb") > 0, -1);
  std::reverse(s.panelB.begin(), s.panelB.end());
  return s;
}

/// Flat frame into the frame of a seat side, with the panel continued flat over its base line.
Iso3 flatToSide(int side, double position_mm, double base_rad, double panel_rad) {
  Iso3 m = Iso3::Identity();
  m.translate(Vec3(0, position_mm, 0));
  m.rotate(Eigen::AngleAxisd(-(base_rad + panel_rad), Vec3::UnitZ()));
  if (side == 1) m.rotate(Eigen::AngleAxisd(kPi, Vec3::UnitY())); // side b is glued mirrored
  return m;
}

std::vector<LinearClosure> vfoldClosures(double shutOpening_rad) {
  // al + g1 = be + g2 in a valley, al - g1 = be - g2 over a ridge.
  const double s = isValley(shutOpening_rad) ? 1.0 : -1.0;
  return {{{{"gamma2", -s}, {"gamma1", s}, {"alpha", 1}, {"beta", -1}}, ParameterUnit::Degree}};
}

std::vector<MendDirection> vfoldMends() {
  return {{{{"position", 1}}},
          {{{"lc", 1}}},
          {{{"ea", 1}, {"eb", 1}}},
          {{{"lc", 1}, {"ea", 1}, {"eb", 1}}},
          {{{"la", 1}, {"lb", 1}}},
          {{{"rise", 1}}},
          {{{"gamma1", 1}, {"gamma2", 1}}},
          {{{"alpha", 1}, {"beta", 1}}},
          {{{"tab", 1}}}};
}

constexpr double kLeastLine_mm = 1; ///< that is left beside what is cut back at the point

Result<void> buildVfold(const RecipeInput& in, AssemblyBuilder& builder) {
  const double al = radians(in.value("alpha")), be = radians(in.value("beta"));
  const double g1 = radians(in.value("gamma1")), g2 = radians(in.value("gamma2"));
  const double position = in.value("position"), open = in.value("open");
  const VfoldShape s = vfoldShapeOf(in.values);
  const auto& [a, b] = in.sideNames;
  const bool valley = isValley(in.seat.shutOpening_rad);
  for (const char* key : {"la", "lb", "lc"})
    if (in.value(key) < in.value("open") + kLeastLine_mm)
      return Error{
          {"vfold.cut-away", nameOf(*findSpec(kVfoldTable, key)), Millimetres{kLeastLine_mm}},
          in.item.id.text()};

  const PieceIndex piece = builder.piece("piece", "v-fold");
  const PanelIndex panelA =
      builder.panel(piece, "panel-" + a, Text("panel", a), PanelUse::Wall, s.panelA);
  const PanelIndex panelB =
      builder.panel(piece, "panel-" + b, Text("panel", b), PanelUse::Wall, s.panelB);
  builder.twins(panelA, panelB);
  builder.fold("crease", "centre-crease", panelA, panelB, s.foot, s.crease, FoldSense::Mountain,
               -kPi);
  const double clear = in.settings.foldClearance_mm;
  addGluedTab(builder, in, panelA, piece, s.endA, s.footA, a, in.seat.sides[0],
              flatToSide(0, position, al, g1), clear);
  addGluedTab(builder, in, panelB, piece, s.footB, s.endB, b, in.seat.sides[1],
              flatToSide(1, position, be, g2), clear);
  builder.placement(in.seat, {panelA, panelB},
                    [=](double opening) { return vFoldPoses(opening, position, al, be, g1, g2); });

  const auto key = [&](std::string_view k) { return shownKey(in, kVfoldTable, k); };
  builder.dimension(key("la"), panelA, Vec2::Zero(), s.endA);
  builder.dimension(key("lb"), panelB, Vec2::Zero(), s.endB);
  builder.dimension("lc", panelA, Vec2::Zero(), s.crease);
  builder.dimension(key("gamma1"), panelA, s.endA, s.crease, Vec2::Zero());
  builder.dimension(key("gamma2"), panelB, s.crease, s.endB, Vec2::Zero());
  if (in.value("ea") > 0) builder.dimension(key("ea"), panelA, s.endA, s.outerA);
  if (in.value("eb") > 0) builder.dimension(key("eb"), panelB, s.endB, s.outerB);
  const Vec2 point(0, position), ahead(0, position + 30);
  builder.dimensionOn(in.seat.sides[0], key("alpha"), ahead, Vec2(point + 30 * atAngle(al)), point);
  builder.dimensionOn(in.seat.sides[1], key("beta"), ahead, Vec2(point + 30 * atAngle(be)), point);
  builder.dimensionOn(in.seat.sides[in.turned ? 0 : 1], "position",
                      Vec2(0, in.turned ? in.seat.length_mm : 0), point);

  builder.seat("ridge", Text("centre-crease-of", in.name()),
               sideOn(panelA, s.foot, -Vec2::UnitX(), Vec2::UnitY()),
               sideOn(panelB, s.foot, Vec2::UnitX(), Vec2::UnitY()), (s.crease - s.foot).norm(),
               2 * kPi);
  if (!valley) return builder.status();
  // In front of the V its panels make valleys with the pages they stand on.
  const Vec2 dirA = s.endA.normalized(), dirB = s.endB.normalized(), apex(0, position);
  const Vec2 outA = atAngle(al + kPi / 2), outB = atAngle(be + kPi / 2);
  builder.seat("valley-" + a, valleyAt(Text("panel", a), in),
               sideWithin(in.seat.sides[0], Vec2(apex + open * atAngle(al)), outA, atAngle(al)),
               sideOn(panelA, s.footA, Vec2(dirA.y(), -dirA.x()), dirA), s.endA.norm() - open, 0);
  builder.seat("valley-" + b, valleyAt(Text("panel", b), in),
               sideOn(panelB, s.footB, Vec2(-dirB.y(), dirB.x()), dirB),
               sideWithin(in.seat.sides[1], Vec2(apex + open * atAngle(be)), outB, atAngle(be)),
               s.endB.norm() - open, 0);
  builder.twinSeats("valley-" + a, "valley-" + b);
  return builder.status();
}

Room vfoldRoom(const ParameterValues& v, double shutOpening_rad) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  Room r{0, 1e300, -1e300};
  const VfoldShape s = vfoldShapeOf(v);
  const Iso3 m = flatToSide(0, 0, radians(get("alpha")), radians(get("gamma1")));
  const bool valley = isValley(shutOpening_rad);
  for (const Vec2& p : s.panelA) {
    const Vec3 q = m * lift(p);
    const bool onBase = p == s.endA || p == s.footA;
    if (valley || onBase)
      r.out_mm = std::max(r.out_mm, q.x()), r.low_mm = std::min(r.low_mm, q.y()),
      r.high_mm = std::max(r.high_mm, q.y());
  }
  return r;
}

ParameterValues fitVfold(const Seat& seat, const Assembly& assembly, const Settings& settings) {
  return fitToSeat(kVfoldTable, seat, assembly, settings, vfoldRoom);
}

Sketch vfoldSketch() {
  using L = Sketch::Line;
  const Vec2 p(0.50, 0.16), top(0.50, 0.80), al(0.14, 0.42), be(0.86, 0.42), oa(0.14, 0.74),
      ob(0.86, 0.74), foldEnd(0.50, 0.56);
  return {{{p, foldEnd, L::Use::Page},
           {p, al, L::Use::Fold},
           {p, be, L::Use::Fold},
           {p, top, L::Use::Fold},
           {top, oa, L::Use::Paper},
           {oa, al, L::Use::Paper},
           {top, ob, L::Use::Paper},
           {ob, be, L::Use::Paper}},
          {{"lc", p, top, std::nullopt},
           {"la", p, al, std::nullopt},
           {"lb", p, be, std::nullopt},
           {"ea", al, oa, std::nullopt},
           {"eb", be, ob, std::nullopt},
           {"gamma1", al, top, p},
           {"gamma2", top, be, p},
           {"alpha", al, foldEnd, p},
           {"beta", foldEnd, be, p}}};
}

} // namespace

const StructureKind& vfoldKind() {
  static const StructureKind kind{"vfold",    kVfoldTable, kOnFolds, vfoldClosures,
                                  vfoldMends, buildVfold,  fitVfold, vfoldSketch};
  return kind;
}

} // namespace hinge
