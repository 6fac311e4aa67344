// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/belt.h"
#include "core/structures/registry.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

// Tiers: closed boxes of falling size, one on another. The lid of each sinks, so that its crease is
// a valley that opens as the card does; the next tier stands astride that crease.

namespace hinge {
namespace {

constexpr ParameterSpec kTiersTable[] = {
    {"position",
     {"size.tiers.position"},
     ParameterUnit::Millimetre,
     -1000,
     1000,
     60,
     ParameterRole::Gives,
     "",
     Sense::Place},
    {"tiers", {"size.tiers.tiers"}, ParameterUnit::Count, 1, 6, 3, ParameterRole::Held, ""},
    {"length",
     {"size.tiers.length"},
     ParameterUnit::Millimetre,
     10,
     1000,
     84,
     ParameterRole::Gives,
     "",
     Sense::FromPlace},
    {"a", {"size.tiers.a"}, ParameterUnit::Millimetre, 6, 1000, 36, ParameterRole::Gives, ""},
    {"h", {"size.tiers.h"}, ParameterUnit::Millimetre, 4, 500, 18, ParameterRole::Gives, ""},
    {"inset", {"size.tiers.inset"}, ParameterUnit::Millimetre, 1, 200, 9, ParameterRole::Gives, ""},
    {"corner",
     {"size.tiers.corner"},
     ParameterUnit::Millimetre,
     0,
     100,
     0,
     ParameterRole::Gives,
     ""},
    {"tab",
     {"size.tiers.tab"},
     ParameterUnit::Millimetre,
     1,
     60,
     8,
     ParameterRole::Held,
     "",
     Sense::Tab},
    {"wall", {"size.belt.wall"}, ParameterUnit::Switch, 0, 1, 0, ParameterRole::Held, ""},
    {"inner", {"size.belt.inner"}, ParameterUnit::Count, 0, 4, 0, ParameterRole::Held, ""},
};

std::vector<MendDirection> tiersMends() {
  return {{{{"position", 1}}}, {{{"h", 1}}},   {{{"length", 1}}},           {{{"a", 1}}},
          {{{"inset", 1}}},    {{{"tab", 1}}}, {{{"a", 1}, {"length", 2}}}, {{{"tiers", 1}}}};
}

BeltSizes tierOf(const ParameterValues& v, int tier) {
  const auto get = [&](const char* key) { return v.find(key)->second; };
  const double in = get("inset") * tier, a = get("a") - in;
  BeltSizes s{.position = tier == 0 ? get("position") : get("inset"),
              .length = get("length") - 2 * in,
              .a = a,
              .h = get("h"),
              .e = a};
  s.lid = LidKind::Sinks, s.l = a, s.corner = get("corner");
  s.middleWall = get("wall") != 0, s.inner = static_cast<int>(get("inner"));
  return s;
}

Result<void> buildTiers(const RecipeInput& in, AssemblyBuilder& builder) {
  const int count = static_cast<int>(in.value("tiers"));
  const BeltSizes least = tierOf(in.values, count - 1);
  if (least.a < 4 || least.length < 8)
    return Error{{"tier.too-small", count, Millimetres{in.value("inset")}}, in.item.id.text()};
  if (auto carried = carriesInnerWalls(least, in.item.id.text()); !carried) return carried;
  Seat on = in.seat;
  for (int k = 0; k < count; ++k) {
    const std::string mark = k == 0 ? "" : fmt::format("tier-{}-", k + 1);
    on = buildBelt(in, builder, on, tierOf(in.values, k), {"walls", "lid", mark, k + 1});
  }
  const BeltSizes s = tierOf(in.values, 0);
  const PanelIndex wall = builder.assembly().findPanel(in.item.id.text() + "/wall-b");
  const double wallStart = s.length + 2 * s.e;
  builder.dimension("length", wall, {wallStart, s.h}, {wallStart + s.length, s.h});
  builder.dimension("h", wall, {wallStart, 0}, {wallStart, s.h});
  builder.dimensionOn(in.seat.sides[1], "a", {0, s.position}, {s.a, s.position});
  builder.dimensionOn(in.seat.sides[1], "position", {0, 0}, {0, s.position});
  return builder.status();
}

Room tiersRoom(const ParameterValues& v, double) {
  const int count = static_cast<int>(v.find("tiers")->second);
  Room all = beltRoom(tierOf(v, 0));
  const double h = v.find("h")->second;
  for (int k = 1; k < count; ++k)
    all.out_mm = std::max(all.out_mm, k * h + beltRoom(tierOf(v, k)).out_mm);
  return all;
}

ParameterValues fitTiers(const Seat& seat, const Assembly& assembly, const Settings& settings) {
  ParameterValues v = fitToSeat(kTiersTable, seat, assembly, settings, tiersRoom);
  const double least = tierOf(v, static_cast<int>(v["tiers"]) - 1).a;
  v["tab"] = std::clamp(downToLattice(least - settings.foldClearance_mm), 1.0, v["tab"]);
  return v;
}

Sketch tiersSketch() {
  using L = Sketch::Line;
  std::vector<L> lines{{{0.04, 0.10}, {0.96, 0.10}, L::Use::Page}};
  const auto tier = [&](double low, double half) {
    lines.push_back({{0.5 - half, low}, {0.5 - half, low + 0.24}, L::Use::Paper});
    lines.push_back({{0.5 + half, low}, {0.5 + half, low + 0.24}, L::Use::Paper});
    lines.push_back({{0.5 - half, low + 0.24}, {0.5 + half, low + 0.24}, L::Use::Paper});
  };
  tier(0.10, 0.36), tier(0.34, 0.24), tier(0.58, 0.13);
  lines.push_back({{0.5, 0.10}, {0.5, 0.82}, L::Use::Fold});
  return {lines,
          {{"a", {0.5, 0.10}, {0.86, 0.10}, std::nullopt},
           {"h", {0.86, 0.10}, {0.86, 0.34}, std::nullopt},
           {"inset", {0.74, 0.34}, {0.86, 0.34}, std::nullopt}}};
}

} // namespace

const StructureKind& tiersKind() {
  static const StructureKind kind{"tiers",    kTiersTable, kInValleys, noClosures,
                                  tiersMends, buildTiers,  fitTiers,   tiersSketch};
  return kind;
}

} // namespace hinge
