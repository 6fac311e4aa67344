// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/belt.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

// Platform: a level table over the fold. A wall in the fold and two legs carry it; table, legs and
// pages are two parallelograms that share the wall, so the table's crease is a new gutter that
// opens as the card does. Table, wall and legs alone leave the table free to sway along with the
// wall: an end wall between the legs guides it.

namespace hinge {
namespace {

constexpr ParameterSpec kPlatformTable[] = {
    {"position",
     {"size.platform.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"length",
     {"size.platform.length"},
     ParameterUnit::Millimetre,
     12,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::FromPlace},
    {"a", {"size.platform.a"}, ParameterUnit::Millimetre, 4, 1000, 34, ParameterRole::Gives, ""},
    {"h", {"size.platform.h"}, ParameterUnit::Millimetre, 4, 1000, 28, ParameterRole::Gives, ""},
    {"over",
     {"size.platform.over"},
     ParameterUnit::Millimetre,
     0,
     300,
     8,
     ParameterRole::Gives,
     ""},
    {"corner",
     {"size.platform.corner"},
     ParameterUnit::Millimetre,
     0,
     300,
     6,
     ParameterRole::Gives,
     ""},
    {"tab",
     {"size.platform.tab"},
     ParameterUnit::Millimetre,
     1,
     60,
     8,
     ParameterRole::Held,
     "",
     Sense::Tab},
    {"wall", {"size.platform.wall"}, ParameterUnit::Switch, 0, 1, 1, ParameterRole::Held, ""},
    {"ends", {"size.platform.ends"}, ParameterUnit::Switch, 0, 3, 1, ParameterRole::Held, ""},
    {"inner", {"size.belt.inner"}, ParameterUnit::Count, 0, 4, 0, ParameterRole::Held, ""},
};

std::vector<MendDirection> platformMends() {
  return {{{{"ends", 1}}}, {{{"position", 1}}}, {{{"h", 1}}},  {{{"length", 1}}},
          {{{"over", 1}}}, {{{"a", 1}}},        {{{"tab", 1}}}};
}

BeltSizes platformSizes(const ParameterValues& v) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  const double a = get("a"), ends = get("ends");
  BeltSizes s{.position = get("position"),
              .length = get("length"),
              .a = a,
              .h = get("h"),
              .e = a,
              .inward = false,
              .nearEnd = ends == 1 || ends == 3,
              .farEnd = ends >= 2};
  s.lid = LidKind::Sinks, s.l = a, s.over = get("over"), s.corner = get("corner"),
  s.middleWall = get("wall") != 0, s.inner = static_cast<int>(get("inner"));
  return s;
}

Result<void> buildPlatform(const RecipeInput& in, AssemblyBuilder& builder) {
  const BeltSizes s = platformSizes(in.values);
  if (auto carried = carriesInnerWalls(s, in.item.id.text()); !carried) return carried;
  buildBelt(in, builder, in.seat, s, {"legs", "table"});
  const auto panel = [&](const char* role) {
    return builder.assembly().findPanel(in.item.id.text() + "/" + role);
  };
  const PanelIndex table = panel("lid-b");
  builder.dimension("length", table, {0.5 * s.l, 0}, {0.5 * s.l, s.length});
  if (s.over > 0)
    builder.dimension("over", table, {s.l, 0.5 * s.length}, {s.l + s.over, 0.5 * s.length});
  const PanelIndex leg = panel("wall-a");
  const Box2 box = boundsOf(builder.assembly().panels[leg].outline);
  builder.dimension("h", leg, {box.low.x(), 0}, {box.low.x(), s.h});
  builder.dimensionOn(in.seat.sides[1], "a", {0, s.position}, {s.a, s.position});
  builder.dimensionOn(in.seat.sides[1], "position", {0, 0}, {0, s.position});
  return builder.status();
}

Room platformRoom(const ParameterValues& v, double) {
  return beltRoom(platformSizes(v));
}

ParameterValues fitPlatform(const Seat& seat, const Assembly& assembly, const Settings& settings) {
  ParameterValues v = fitToSeat(kPlatformTable, seat, assembly, settings, platformRoom);
  // The tabs of leg and middle wall share the page and the table between them.
  v["tab"] = std::clamp(std::floor(v["a"] - 1) / 2, 1.0, v["tab"]);
  return v;
}

Sketch platformSketch() {
  using L = Sketch::Line;
  const Vec2 g(0.50, 0.10), pa(0.06, 0.20), pb(0.94, 0.20), up(0, 0.52), A(0.18, 0.173),
      B(0.82, 0.173);
  return {{{g, pa, L::Use::Page},
           {g, pb, L::Use::Page},
           {g, g + up, L::Use::Fold},
           {A, A + up, L::Use::Paper},
           {B, B + up, L::Use::Paper},
           {pa + up, g + up, L::Use::Paper},
           {g + up, pb + up, L::Use::Paper}},
          {{"h", B, B + up, std::nullopt},
           {"a", g, B, std::nullopt},
           {"over", B + up, pb + up, std::nullopt}}};
}

} // namespace

const StructureKind& platformKind() {
  static const StructureKind kind{"platform",    kPlatformTable, kInValleys,  noClosures,
                                  platformMends, buildPlatform,  fitPlatform, platformSketch};
  return kind;
}

} // namespace hinge
