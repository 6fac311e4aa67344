// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/belt.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

// Closed box: two walls that stand along the bisector of the seat, joined at both ends by a wall
// with a crease in its middle; open at the top or under a lid with a crease of its own. The ends
// guide the walls, so that nothing is left loose.

namespace hinge {
namespace {

constexpr ParameterSpec kClosedBoxTable[] = {
    {"position",
     {"size.closed-box.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"length",
     {"size.closed-box.length"},
     ParameterUnit::Millimetre,
     5,
     1000,
     50,
     ParameterRole::Gives,
     "",
     Sense::FromPlace},
    {"a", {"size.closed-box.a"}, ParameterUnit::Millimetre, 4, 1000, 26, ParameterRole::Gives, ""},
    {"h", {"size.closed-box.h"}, ParameterUnit::Millimetre, 4, 1000, 34, ParameterRole::Gives, ""},
    {"e", {"size.closed-box.e"}, ParameterUnit::Millimetre, 4, 1000, 26, ParameterRole::Gives, ""},
    {"tab",
     {"size.closed-box.tab"},
     ParameterUnit::Millimetre,
     1,
     60,
     starting::kTabDepth_mm,
     ParameterRole::Held,
     "",
     Sense::Tab},
    {"inward", {"size.closed-box.inward"}, ParameterUnit::Switch, 0, 1, 0, ParameterRole::Held, ""},
    {"lid", {"size.closed-box.lid"}, ParameterUnit::Switch, 0, 2, 0, ParameterRole::Held, ""},
    {"parts", {"size.closed-box.parts"}, ParameterUnit::Switch, 0, 1, 0, ParameterRole::Held, ""},
    {"l", {"size.closed-box.l"}, ParameterUnit::Millimetre, 4, 1000, 26, ParameterRole::Gives, ""},
    {"over",
     {"size.closed-box.over"},
     ParameterUnit::Millimetre,
     0,
     200,
     0,
     ParameterRole::Gives,
     ""},
    {"wall", {"size.belt.wall"}, ParameterUnit::Switch, 0, 1, 0, ParameterRole::Held, ""},
    {"inner", {"size.belt.inner"}, ParameterUnit::Count, 0, 4, 0, ParameterRole::Held, ""},
};

/// Equal halves and equal feet are built in: there is no condition left that sizes could break.
std::vector<MendDirection> closedBoxMends() {
  return {{{{"position", 1}}}, {{{"h", 1}}},    {{{"length", 1}}},
          {{{"e", 1}}},        {{{"l", 1}}},    {{{"a", 1}, {"e", 1}, {"l", 1}}},
          {{{"a", 1}}},        {{{"over", 1}}}, {{{"inward", -1}}},
          {{{"tab", 1}}}};
}

BeltSizes sizesOf(const ParameterValues& v) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  BeltSizes s{.position = get("position"),
              .length = get("length"),
              .a = get("a"),
              .h = get("h"),
              .e = get("e"),
              .inward = get("inward") != 0};
  s.twoParts = get("parts") != 0;
  s.lid = static_cast<LidKind>(static_cast<int>(get("lid")));
  s.l = get("l"), s.over = get("over");
  s.middleWall = get("wall") != 0, s.inner = static_cast<int>(get("inner"));
  return s;
}

Result<void> buildClosedBox(const RecipeInput& in, AssemblyBuilder& builder) {
  const BeltSizes s = sizesOf(in.values);
  if (auto carried = carriesInnerWalls(s, in.item.id.text()); !carried) return carried;
  buildBelt(in, builder, in.seat, s, {"closed-box", "lid"});
  const auto panel = [&](const char* role) {
    return builder.assembly().findPanel(in.item.id.text() + "/" + role);
  };
  const PanelIndex wall = panel(in.turned ? "wall-a" : "wall-b"),
                   end = panel(in.turned ? "near-a" : "near-b");
  const double wallStart = s.length + 2 * s.e, endStart = s.length + s.e;
  builder.dimension("length", wall, {wallStart, s.h}, {wallStart + s.length, s.h});
  builder.dimension("h", wall, {wallStart, 0}, {wallStart, s.h});
  builder.dimension("e", end, {endStart, s.h}, {endStart + s.e, s.h});
  if (s.lid != LidKind::None)
    builder.dimension("l", panel(in.turned ? "lid-a" : "lid-b"), {0, 0.5 * s.length},
                      {s.l, 0.5 * s.length});
  builder.dimensionOn(in.seat.sides[1], "a", {0, s.position}, {s.a, s.position});
  builder.dimensionOn(in.seat.sides[1], "position", {0, 0}, {0, s.position});
  return builder.status();
}

Room closedBoxRoom(const ParameterValues& v, double) {
  return beltRoom(sizesOf(v));
}

ParameterValues fitClosedBox(const Seat& seat, const Assembly& assembly, const Settings& settings) {
  return fitToSeat(kClosedBoxTable, seat, assembly, settings, closedBoxRoom);
}

Sketch closedBoxSketch() {
  using L = Sketch::Line;
  const Vec2 g0(0.50, 0.06), g1(0.62, 0.30), a0(0.16, 0.20), a1(0.28, 0.44), b0(0.78, 0.20),
      b1(0.90, 0.44), c(0.47, 0.12), up(0, 0.44);
  return {{{g0, g1, L::Use::Page},
           {a0, a0 + up, L::Use::Paper},
           {a0 + up, a1 + up, L::Use::Paper},
           {a0, c, L::Use::Paper},
           {c, b0, L::Use::Paper},
           {a0 + up, c + up, L::Use::Paper},
           {c + up, b0 + up, L::Use::Paper},
           {c, c + up, L::Use::Fold},
           {b0, b0 + up, L::Use::Paper},
           {b0 + up, b1 + up, L::Use::Paper},
           {b1, b1 + up, L::Use::Paper},
           {b0, b1, L::Use::Paper}},
          {{"h", b1, b1 + up, std::nullopt},
           {"e", c + up, b0 + up, std::nullopt},
           {"length", b0 + up, b1 + up, std::nullopt},
           {"a", g0, b0, std::nullopt}}};
}

} // namespace

const StructureKind& closedBoxKind() {
  static const StructureKind kind{"closed-box",   kClosedBoxTable, kInValleys,   noClosures,
                                  closedBoxMends, buildClosedBox,  fitClosedBox, closedBoxSketch};
  return kind;
}

} // namespace hinge
