// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/closed_forms.h"
#include "core/structures/common.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

// Cube on its corner: a cube turned by 45 degrees, with an edge over the fold. Only the two near
// faces are glued; they are a V-fold with upright panels. All upright edges of the ring of four are
// parallel, so the far faces keep parallel to the near ones: a prism over a rhombus that lies flat
// when the card is shut. Were all four glued, every corner of the foot would be a rigid triple of
// planes and the card could not shut. For the same reason it has no lid.
//
// Flat frame of the piece: near edge in the origin, y up, near face a to the left, face (+z)
// outside.

namespace hinge {
namespace {

constexpr ParameterSpec kCornerCubeTable[] = {
    {"position",
     {"size.corner-cube.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"w", {"size.corner-cube.w"}, ParameterUnit::Millimetre, 8, 1000, 34, ParameterRole::Gives, ""},
    {"h", {"size.corner-cube.h"}, ParameterUnit::Millimetre, 4, 1000, 34, ParameterRole::Gives, ""},
    {"alpha",
     {"size.corner-cube.alpha"},
     ParameterUnit::Degree,
     10,
     80,
     45,
     ParameterRole::Gives,
     ""},
    {"tab",
     {"size.corner-cube.tab"},
     ParameterUnit::Millimetre,
     1,
     60,
     8,
     ParameterRole::Held,
     "",
     Sense::Tab},
    {"turned",
     {"size.corner-cube.turned"},
     ParameterUnit::Switch,
     0,
     1,
     0,
     ParameterRole::Held,
     "",
     Sense::TurnedRound},
};

std::vector<MendDirection> cornerCubeMends() {
  return {{{{"position", 1}}},    {{{"h", 1}}},     {{{"w", 1}}},
          {{{"w", 1}, {"h", 1}}}, {{{"alpha", 1}}}, {{{"tab", 1}}}};
}

/// Near faces as in a V-fold, far faces parallel to them.
std::optional<std::vector<Iso3>> poses(double opening, double position, double al, double w) {
  const auto near = vFoldPoses(opening, position, al, al, 0.5 * kPi, 0.5 * kPi);
  if (!near) return std::nullopt;
  const Iso3 &a = near->at(0), &b = near->at(1);
  const Vec3 apex = a.translation(), up = a.linear().col(1), toA = -a.linear().col(0),
             toB = b.linear().col(0);
  const Vec3 farA = apex + w * toA, farB = apex + w * toB;
  return std::vector<Iso3>{a, b, frame(farB - w * toA, toA, up, toA.cross(up)),
                           frame(farA - w * toB, -toB, up, up.cross(toB))};
}

Result<void> buildCornerCube(const RecipeInput& in, AssemblyBuilder& builder) {
  const double position = in.value("position"), w = in.value("w"), h = in.value("h"),
               al = radians(in.value("alpha"));
  const double tab = in.value("tab"),
               lean = std::min(tab * std::tan(radians(in.settings.tabBevel_deg)), h / 3);
  const auto& [sa, sb] = in.sideNames;
  const PieceIndex piece = builder.piece("piece", "cube");
  const auto face = [&](const std::string& role, const Text& label, double from) {
    return builder.panel(piece, role, label, PanelUse::Wall,
                         {{from, 0}, {from + w, 0}, {from + w, h}, {from, h}});
  };
  const PanelIndex farA = face("far-" + sa, Text("far-face", sa), -2 * w),
                   nearA = face("near-" + sa, Text("near-face", sa), -w);
  const PanelIndex nearB = face("near-" + sb, Text("near-face", sb), 0),
                   farB = face("far-" + sb, Text("far-face", sb), w);
  builder.fold("edge-" + sa, Text("edge", sa), farA, nearA, {-w, 0}, {-w, h}, FoldSense::Mountain,
               0);
  builder.fold("near-edge", "near-edge", nearA, nearB, {0, 0}, {0, h}, FoldSense::Mountain, -kPi);
  builder.fold("edge-" + sb, Text("edge", sb), nearB, farB, {w, 0}, {w, h}, FoldSense::Mountain, 0);
  const PanelIndex closing =
      builder.panel(piece, "tab-ring", "ring-tab", PanelUse::Tab,
                    {{2 * w, 0}, {2 * w + tab, lean}, {2 * w + tab, h - lean}, {2 * w, h}});
  builder.fold("far-edge", "far-edge", farB, closing, {2 * w, 0}, {2 * w, h}, FoldSense::Mountain,
               -kPi);
  Iso3 onto = Iso3::Identity();
  onto.translation() = Vec3(-4 * w, 0, 0);
  builder.glue(closing, farA, onto);
  const auto toSide = [&](int side) {
    Iso3 m = Iso3::Identity();
    m.translate(Vec3(0, position, 0));
    m.rotate(Eigen::AngleAxisd(-(al + 0.5 * kPi), Vec3::UnitZ()));
    if (side == 1) m.rotate(Eigen::AngleAxisd(kPi, Vec3::UnitY()));
    return m;
  };
  const double clear = in.settings.foldClearance_mm;
  addGluedTab(builder, in, nearA, piece, {-w, 0}, {0, 0}, sa, in.seat.sides[0], toSide(0), clear);
  addGluedTab(builder, in, nearB, piece, {0, 0}, {w, 0}, sb, in.seat.sides[1], toSide(1), clear);
  builder.placement(in.seat, {nearA, nearB, farB, farA},
                    [=](double opening) { return poses(opening, position, al, w); });
  builder.twins(nearA, nearB);
  builder.twins(farA, farB);
  builder.faceSeats(farA, {-2 * w, 0}, {-w, 0});
  builder.faceSeats(farB, {w, 0}, {2 * w, 0});
  builder.dimension("w", nearB, {0, h}, {w, h});
  builder.dimension("h", nearB, {w, 0}, {w, h});
  const Vec2 point(0, position), ahead(0, position + 30);
  builder.dimensionOn(in.seat.sides[1], "alpha", ahead,
                      Vec2(point + 30 * Vec2(std::sin(al), std::cos(al))), point);
  builder.dimensionOn(in.seat.sides[1], "position", Vec2(0, in.turned ? in.seat.length_mm : 0),
                      point);
  seatOnFold(builder, "near", Text("near-edge-of", in.name()), nearA, nearB, {0, 0}, {0, h},
             2 * kPi);
  return builder.status();
}

Room cornerCubeRoom(const ParameterValues& v, double) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  const double al = radians(get("alpha")), w = get("w"), h = get("h");
  // Shut, near and far face lie in line away from the point; the upright edges point back towards
  // the fold.
  return {2 * w * std::sin(al) + h * std::cos(al), std::min(0.0, -h * std::sin(al)),
          2 * w * std::cos(al)};
}

ParameterValues fitCornerCube(const Seat& seat, const Assembly& assembly,
                              const Settings& settings) {
  return fitToSeat(kCornerCubeTable, seat, assembly, settings, cornerCubeRoom);
}

Sketch cornerCubeSketch() {
  using L = Sketch::Line;
  const Vec2 n(0.50, 0.08), a(0.16, 0.24), b(0.84, 0.24), f(0.50, 0.40), up(0, 0.46);
  return {{{n, n + up, L::Use::Fold},
           {a, a + up, L::Use::Paper},
           {b, b + up, L::Use::Paper},
           {a, n, L::Use::Paper},
           {n, b, L::Use::Paper},
           {a + up, n + up, L::Use::Paper},
           {n + up, b + up, L::Use::Paper},
           {a + up, f + up, L::Use::Paper},
           {f + up, b + up, L::Use::Paper},
           {n, {0.5, 0.0}, L::Use::Page}},
          {{"h", b, b + up, std::nullopt}, {"w", n, b, std::nullopt}}};
}

} // namespace

const StructureKind& cornerCubeKind() {
  static const StructureKind kind{"corner-cube", kCornerCubeTable, kInValleys,
                                  noClosures,    cornerCubeMends,  buildCornerCube,
                                  fitCornerCube, cornerCubeSketch};
  return kind;
}

} // namespace hinge
