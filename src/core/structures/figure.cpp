// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/common.h"
#include "core/structures/registry.h"
#include "core/structures/silhouettes.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

// Figures and arms: flat silhouettes glued on a face. They move with the panel that carries them,
// may stand out over its edges and carry further figures.
//
// Flat frame of the piece: foot in the origin, y up, face (+z) outside; it is glued by its back.

namespace hinge {
namespace {

constexpr ParameterSpec kFigureTable[] = {
    {"position",
     {"size.figure.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     20,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"up", {"size.figure.up"}, ParameterUnit::Millimetre, -500, 1000, 10, ParameterRole::Gives, ""},
    {"width",
     {"size.figure.width"},
     ParameterUnit::Millimetre,
     3,
     1000,
     26,
     ParameterRole::Gives,
     "",
     Sense::AboutPlace},
    {"height",
     {"size.figure.height"},
     ParameterUnit::Millimetre,
     3,
     1000,
     36,
     ParameterRole::Gives,
     ""},
    {"turn",
     {"size.figure.turn"},
     ParameterUnit::Degree,
     -180,
     180,
     0,
     ParameterRole::Gives,
     "",
     Sense::Turn},
    {"shape",
     {"size.figure.shape"},
     ParameterUnit::Switch,
     0,
     kMostSilhouette,
     1,
     ParameterRole::Held,
     ""},
    {"handed",
     {"size.figure.handed"},
     ParameterUnit::Switch,
     0,
     1,
     0,
     ParameterRole::Held,
     "",
     Sense::Hand},
};

constexpr ParameterSpec kArmTable[] = {
    {"position",
     {"size.arm.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     20,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"up", {"size.arm.up"}, ParameterUnit::Millimetre, -500, 1000, 10, ParameterRole::Gives, ""},
    {"length",
     {"size.arm.length"},
     ParameterUnit::Millimetre,
     8,
     1000,
     70,
     ParameterRole::Gives,
     ""},
    {"width",
     {"size.arm.width"},
     ParameterUnit::Millimetre,
     4,
     200,
     10,
     ParameterRole::Gives,
     "",
     Sense::AboutPlace},
    {"turn",
     {"size.arm.turn"},
     ParameterUnit::Degree,
     -180,
     180,
     0,
     ParameterRole::Gives,
     "",
     Sense::Turn},
};

std::vector<MendDirection> figureMends() {
  return {{{{"position", 1}}},
          {{{"up", 1}}},
          {{{"height", 1}}},
          {{{"width", 1}, {"height", 1}}},
          {{{"turn", 1}}}};
}
std::vector<MendDirection> armMends() {
  return {{{{"length", 1}}}, {{{"turn", 1}}}, {{{"position", 1}}}, {{{"up", 1}}}};
}

Polygon armOutline(double length, double width) {
  const double r = 0.5 * width;
  Polygon p{{-r, 0}, {r, 0}};
  for (double t = 0; t <= 180; t += 30)
    p.push_back({r * std::cos(radians(t)), length - r + r * std::sin(radians(t))});
  return p;
}

/// Cuts the outline, glues it on the seat's face with its foot at (position, up) and offers its
/// faces.
Result<void> glueOnFace(const RecipeInput& in, AssemblyBuilder& builder, const std::string& name,
                        Polygon outline) {
  const SeatSide& face = in.seat.sides[0];
  const PieceIndex piece = builder.piece("piece", name);
  const PanelIndex panel = builder.panel(piece, name, name, PanelUse::Wall, std::move(outline));
  const FootOnFace at(in.values);
  builder.glue(panel, face.panel, face.toPiece * at.frame(), false);
  const Box2 box = boundsOf(builder.assembly().panels[panel].outline);
  builder.faceSeats(panel, {box.low.x(), 0}, {box.high.x(), 0});
  builder.dimensionOn(face, "position", {0, at.foot.y()}, at.foot);
  builder.dimensionOn(face, "up", {at.foot.x(), 0}, at.foot);
  return builder.status();
}

Result<void> buildFigure(const RecipeInput& in, AssemblyBuilder& builder) {
  const double width = in.value("width"), height = in.value("height");
  if (auto glued = glueOnFace(in, builder, "figure", silhouetteOf(in.values)); !glued) return glued;
  const PanelIndex panel = builder.assembly().findPanel(in.item.id.text() + "/figure");
  builder.dimension("width", panel, {-0.5 * width, 0}, {0.5 * width, 0});
  builder.dimension("height", panel, {0, 0}, {0, height});
  return builder.status();
}

Result<void> buildArm(const RecipeInput& in, AssemblyBuilder& builder) {
  const double length = in.value("length"), width = in.value("width");
  if (length < width) return Error{"arm.too-short", in.item.id.text()};
  if (auto glued = glueOnFace(in, builder, "arm", armOutline(length, width)); !glued) return glued;
  const PanelIndex panel = builder.assembly().findPanel(in.item.id.text() + "/arm");
  builder.dimension("length", panel, {0, 0}, {0, length});
  builder.dimension("width", panel, {-0.5 * width, 0}, {0.5 * width, 0});
  return builder.status();
}

ParameterValues fitFigure(const Seat& seat, const Assembly& assembly, const Settings&) {
  ParameterValues v = fitSilhouette(kFigureTable, seat, assembly, 0.8, 0.8);
  v["up"] = std::floor(0.2 * seatDepth_mm(seat, 0, assembly)) / 2; // near the foot of the face
  return v;
}

ParameterValues fitArm(const Seat& seat, const Assembly& assembly, const Settings&) {
  ParameterValues v = startingValues(kArmTable);
  const double depth = seatDepth_mm(seat, 0, assembly);
  const auto half = [](double x) { return downToLattice(x); };
  v["width"] = std::max(4.0, half(std::min(10.0, 0.3 * seat.length_mm)));
  v["up"] = half(0.15 * depth), v["position"] = half(0.5 * seat.length_mm);
  v["length"] = std::max({8.0, v["width"], half(std::min(70.0, 1.2 * depth))});
  return v;
}

Sketch figureSketch() {
  Sketch s;
  const Polygon p = silhouette(1);
  const auto at = [](const Vec2& q) { return Vec2(0.5 + 0.6 * q.x(), 0.2 + 0.7 * q.y()); };
  for (std::size_t k = 0; k < p.size(); ++k)
    s.lines.push_back({at(p[k]), at(p[(k + 1) % p.size()]), Sketch::Line::Use::Paper});
  s.lines.push_back({{0.1, 0.08}, {0.9, 0.08}, Sketch::Line::Use::Page});
  s.dimensions = {{"height", {0.85, 0.2}, {0.85, 0.9}, std::nullopt},
                  {"width", {0.2, 0.95}, {0.8, 0.95}, std::nullopt},
                  {"up", {0.5, 0.08}, {0.5, 0.2}, std::nullopt},
                  {"position", {0.1, 0.14}, {0.5, 0.14}, std::nullopt}};
  return s;
}

Sketch armSketch() {
  using L = Sketch::Line;
  const Vec2 foot(0.3, 0.2), tip(0.8, 0.8), side(-0.06, 0.05);
  return {{{foot - side, tip - side, L::Use::Paper},
           {foot + side, tip + side, L::Use::Paper},
           {foot - side, foot + side, L::Use::Paper},
           {tip - side, tip + side, L::Use::Paper},
           {{0.1, 0.08}, {0.9, 0.08}, L::Use::Page}},
          {{"length", foot, tip, std::nullopt},
           {"position", {0.1, 0.14}, {0.3, 0.14}, std::nullopt},
           {"turn", {0.3, 0.6}, tip, foot}}};
}

} // namespace

const StructureKind& figureKind() {
  static const StructureKind kind{"figure",    kFigureTable, kOnFaces,  noClosures,
                                  figureMends, buildFigure,  fitFigure, figureSketch};
  return kind;
}

const StructureKind& armKind() {
  static const StructureKind kind{"arm",    kArmTable, kOnFaces, noClosures,
                                  armMends, buildArm,  fitArm,   armSketch};
  return kind;
}

} // namespace hinge
