// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/common.h"
#include "core/structures/registry.h"
#include "core/structures/silhouettes.h"

// Window: an opening cut in the panel of a face. It has no paper of its own.

namespace hinge {
namespace {

constexpr ParameterSpec kWindowTable[] = {
    {"position",
     {"size.window.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     20,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"up", {"size.window.up"}, ParameterUnit::Millimetre, -500, 1000, 10, ParameterRole::Gives, ""},
    {"width",
     {"size.window.width"},
     ParameterUnit::Millimetre,
     2,
     1000,
     16,
     ParameterRole::Gives,
     "",
     Sense::AboutPlace},
    {"height",
     {"size.window.height"},
     ParameterUnit::Millimetre,
     2,
     1000,
     20,
     ParameterRole::Gives,
     ""},
    {"turn",
     {"size.window.turn"},
     ParameterUnit::Degree,
     -180,
     180,
     0,
     ParameterRole::Gives,
     "",
     Sense::Turn},
    {"shape",
     {"size.window.shape"},
     ParameterUnit::Switch,
     0,
     kMostSilhouette,
     7,
     ParameterRole::Held,
     ""},
    {"handed",
     {"size.window.handed"},
     ParameterUnit::Switch,
     0,
     1,
     0,
     ParameterRole::Held,
     "",
     Sense::Hand},
};

std::vector<MendDirection> windowMends() {
  return {{{{"position", 1}}}, {{{"up", 1}}}, {{{"height", 1}}}, {{{"width", 1}, {"height", 1}}}};
}

Result<void> buildWindow(const RecipeInput& in, AssemblyBuilder& builder) {
  const double width = in.value("width"), height = in.value("height");
  const SeatSide& face = in.seat.sides[0];
  const FootOnFace place(in.values);
  const auto at = [&](const Vec2& p) {
    return Vec2((face.toPiece * (place.frame() * lift(p))).head<2>());
  };
  Polygon opening;
  for (const Vec2& p : silhouetteOf(in.values))
    opening.push_back(at(p));
  builder.cutWindow(face.panel, opening);
  builder.dimensionOn(face, "position", {0, place.foot.y()}, place.foot);
  builder.dimensionOn(face, "up", {place.foot.x(), 0}, place.foot);
  builder.dimension("width", face.panel, at({-0.5 * width, 0.5 * height}),
                    at({0.5 * width, 0.5 * height}));
  builder.dimension("height", face.panel, at({0, 0}), at({0, height}));
  return builder.status();
}

ParameterValues fitWindow(const Seat& seat, const Assembly& assembly, const Settings&) {
  return fitSilhouette(kWindowTable, seat, assembly, 0.4, 0.5);
}

Sketch windowSketch() {
  using L = Sketch::Line;
  Sketch s;
  s.lines = {{{0.12, 0.12}, {0.88, 0.12}, L::Use::Paper},
             {{0.88, 0.12}, {0.88, 0.92}, L::Use::Paper},
             {{0.88, 0.92}, {0.12, 0.92}, L::Use::Paper},
             {{0.12, 0.92}, {0.12, 0.12}, L::Use::Paper}};
  const Polygon p = silhouette(7);
  const auto at = [](const Vec2& q) { return Vec2(0.5 + 0.36 * q.x(), 0.3 + 0.44 * q.y()); };
  for (std::size_t k = 0; k < p.size(); ++k)
    s.lines.push_back({at(p[k]), at(p[(k + 1) % p.size()]), L::Use::Paper});
  s.dimensions = {{"width", {0.32, 0.5}, {0.68, 0.5}, std::nullopt},
                  {"height", {0.75, 0.3}, {0.75, 0.74}, std::nullopt},
                  {"up", {0.5, 0.12}, {0.5, 0.3}, std::nullopt},
                  {"position", {0.12, 0.2}, {0.5, 0.2}, std::nullopt}};
  return s;
}

} // namespace

const StructureKind& windowKind() {
  static const StructureKind kind{"window",    kWindowTable, kOnFaces,  noClosures,
                                  windowMends, buildWindow,  fitWindow, windowSketch};
  return kind;
}

} // namespace hinge
