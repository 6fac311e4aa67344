// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/belt.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

// Cube: a closed box as deep as it is wide, with a lid that is level when the card is open flat.
// Half of it stands on either side of the fold. Its lid carries further structures: on the fold of
// a sinking lid, on the ridge of a rising one.

namespace hinge {
namespace {

constexpr ParameterSpec kCubeTable[] = {
    {"position",
     {"size.cube.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"w", {"size.cube.w"}, ParameterUnit::Millimetre, 8, 1000, 44, ParameterRole::Gives, ""},
    {"depth",
     {"size.cube.depth"},
     ParameterUnit::Millimetre,
     8,
     1000,
     44,
     ParameterRole::Gives,
     "",
     Sense::FromPlace},
    {"h", {"size.cube.h"}, ParameterUnit::Millimetre, 4, 1000, 44, ParameterRole::Gives, ""},
    {"tab",
     {"size.cube.tab"},
     ParameterUnit::Millimetre,
     1,
     60,
     8,
     ParameterRole::Held,
     "",
     Sense::Tab},
    {"lid", {"size.cube.lid"}, ParameterUnit::Switch, 0, 2, 2, ParameterRole::Held, ""},
    {"parts", {"size.cube.parts"}, ParameterUnit::Switch, 0, 1, 0, ParameterRole::Held, ""},
    {"inward", {"size.cube.inward"}, ParameterUnit::Switch, 0, 1, 0, ParameterRole::Held, ""},
};

std::vector<MendDirection> cubeMends() {
  return {{{{"position", 1}}},
          {{{"h", 1}}},
          {{{"depth", 1}}},
          {{{"w", 1}}},
          {{{"w", 1}, {"depth", 1}, {"h", 1}}},
          {{{"tab", 1}}},
          {{{"inward", -1}}}};
}

BeltSizes cubeSizes(const ParameterValues& v) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  const double half = 0.5 * get("w");
  BeltSizes s{.position = get("position"),
              .length = get("depth"),
              .a = half,
              .h = get("h"),
              .e = half,
              .inward = get("inward") != 0};
  s.twoParts = get("parts") != 0;
  s.lid = static_cast<LidKind>(static_cast<int>(get("lid")));
  s.l = half;
  return s;
}

Result<void> buildCube(const RecipeInput& in, AssemblyBuilder& builder) {
  const BeltSizes s = cubeSizes(in.values);
  buildBelt(in, builder, in.seat, s, {"cube", "lid"});
  const auto panel = [&](const char* role) {
    return builder.assembly().findPanel(in.item.id.text() + "/" + role);
  };
  const double wallStart = s.length + 2 * s.e;
  builder.dimension("depth", panel("wall-b"), {wallStart, s.h}, {wallStart + s.length, s.h});
  builder.dimension("h", panel("wall-b"), {wallStart, 0}, {wallStart, s.h});
  builder.dimensionOn(in.seat.sides[1], "position", {0, 0}, {0, s.position});
  return builder.status();
}

Room cubeRoom(const ParameterValues& v, double) {
  return beltRoom(cubeSizes(v));
}

ParameterValues fitCube(const Seat& seat, const Assembly& assembly, const Settings& settings) {
  return fitToSeat(kCubeTable, seat, assembly, settings, cubeRoom);
}

Sketch cubeSketch() {
  using L = Sketch::Line;
  const Vec2 n(0.40, 0.08), f(0.64, 0.30), a(0.10, 0.26), b(0.86, 0.26), up(0, 0.46),
      back(0.62, 0.44);
  return {{{n, n + up, L::Use::Fold},
           {a, a + up, L::Use::Paper},
           {b, b + up, L::Use::Paper},
           {a, n, L::Use::Paper},
           {n, b, L::Use::Paper},
           {a + up, n + up, L::Use::Paper},
           {n + up, b + up, L::Use::Paper},
           {a + up, back + up * 0.98, L::Use::Paper},
           {back + up * 0.98, b + up, L::Use::Paper},
           {n + up, back + up * 0.98, L::Use::Fold},
           {n, f, L::Use::Page}},
          {{"h", b, b + up, std::nullopt}, {"w", a, b, std::nullopt}}};
}

} // namespace

const StructureKind& cubeKind() {
  static const StructureKind kind{"cube",    kCubeTable, kInValleys, noClosures,
                                  cubeMends, buildCube,  fitCube,    cubeSketch};
  return kind;
}

} // namespace hinge
