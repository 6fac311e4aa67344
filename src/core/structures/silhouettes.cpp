// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/silhouettes.h"
#include "core/units/lattice.h"
#include "core/units/length.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

/// Right half of a silhouette from the foot to the top, x from 0 to 0.5, y from 0 to 1; the left
/// half is its mirror.
Polygon mirrored(const std::vector<Vec2>& right) {
  Polygon p(right.begin(), right.end());
  for (auto k = right.size(); k-- > 0;)
    if (right[k].x() > 1e-9) p.push_back({-right[k].x(), right[k].y()});
  return p;
}

} // namespace

Polygon silhouette(int shape) {
  switch (shape) {
  case 1:
    return mirrored({{0.16, 0},
                     {0.22, 0.10},
                     {0.42, 0.22},
                     {0.5, 0.42},
                     {0.46, 0.62},
                     {0.30, 0.76},
                     {0.18, 0.80},
                     {0.18, 0.88},
                     {0.07, 0.92},
                     {0.05, 1}});
  case 2:
    return {{-0.34, 0},   {0.34, 0}, {0.5, 0.30}, {0.14, 0.30}, {0.14, 0.44},
            {0.34, 0.48}, {0.06, 1}, {0.02, 1},   {0.02, 0.30}, {-0.5, 0.34}};
  case 3:
    return mirrored({{0.30, 0},
                     {0.24, 0.30},
                     {0.34, 0.52},
                     {0.30, 0.70},
                     {0.13, 0.76},
                     {0.22, 0.86},
                     {0.16, 0.96},
                     {0.0, 1}});
  case 4:
    return mirrored({{0.08, 0},
                     {0.08, 0.22},
                     {0.5, 0.26},
                     {0.26, 0.50},
                     {0.38, 0.52},
                     {0.20, 0.74},
                     {0.28, 0.76},
                     {0.0, 1}});
  case 5:
    return {{-0.10, 0},    {0.06, 0},     {0.02, 0.34}, {0.24, 0.40}, {0.28, 0.58},
            {0.12, 0.72},  {0.16, 0.86},  {0.5, 0.88},  {0.18, 0.96}, {0.04, 1},
            {-0.04, 0.92}, {-0.04, 0.70}, {-0.5, 0.42}, {-0.08, 0.36}};
  case 6: {
    Polygon p;
    for (int k = 0; k < 16; ++k)
      p.push_back({0.5 * std::cos(kPi * k / 8), 0.5 + 0.5 * std::sin(kPi * k / 8)});
    return p;
  }
  case 7: {
    Polygon p{{-0.5, 0}, {0.5, 0}};
    for (int k = 0; k <= 8; ++k)
      p.push_back({0.5 * std::cos(kPi * k / 8), 0.62 + 0.38 * std::sin(kPi * k / 8)});
    return p;
  }
  default: return {{-0.5, 0}, {0.5, 0}, {0.5, 1}, {-0.5, 1}};
  }
}

Polygon silhouetteOf(const ParameterValues& values) {
  const auto get = [&](const char* key) { return values.find(key)->second; };
  const double hand = get("handed") != 0 ? -1 : 1, width = get("width"), height = get("height");
  Polygon outline = silhouette(static_cast<int>(get("shape")));
  for (Vec2& p : outline)
    p = Vec2(hand * p.x() * width, p.y() * height);
  return outline;
}

FootOnFace::FootOnFace(const ParameterValues& values) {
  const double turn = radians(values.find("turn")->second);
  foot = {values.find("position")->second, values.find("up")->second};
  up = {std::sin(turn), std::cos(turn)}, right = {up.y(), -up.x()};
}

ParameterValues fitSilhouette(ParameterTable table, const Seat& seat, const Assembly& assembly,
                              double shareOfLength, double shareOfDepth) {
  ParameterValues v = startingValues(table);
  const double depth = seatDepth_mm(seat, 0, assembly);
  const auto half = [](double x) { return downToLattice(x); };
  const double leastWidth = findSpec(table, "width")->least,
               leastHeight = findSpec(table, "height")->least;
  v["width"] = std::max(leastWidth, half(std::min(v["width"], shareOfLength * seat.length_mm)));
  v["height"] =
      std::max(leastHeight, half(std::min({v["height"], shareOfDepth * depth, 1.5 * v["width"]})));
  v["position"] = half(0.5 * seat.length_mm);
  v["up"] = half(0.5 * (depth - v["height"]));
  return v;
}

} // namespace hinge
