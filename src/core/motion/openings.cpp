// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/openings.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kSame_rad = 1e-12;

} // namespace

std::vector<double> turningPoints(const Assembly& assembly) {
  const double low = assembly.low_rad, high = assembly.high_rad;
  std::vector<double> points{low, high};
  const auto add = [&](double opening_rad) {
    if (opening_rad > low + kSame_rad && opening_rad < high - kSame_rad)
      points.push_back(opening_rad);
  };
  const double leafShare = assembly.openBy_rad / kPi; // of the base's way in that of the leaf
  for (const Drive& drive : assembly.drives)
    add(drive.from_rad * leafShare), add(drive.to_rad * leafShare);
  for (const auto& [j, slide] : assembly.every<Slide>())
    if (slide.pull) add(slide.pull->from_rad), add(slide.pull->to_rad);
  if (assembly.openBy_rad < kPi) add(assembly.openBy_rad);
  std::ranges::sort(points);
  const auto same = [](double a, double b) { return b - a < kSame_rad; };
  points.erase(std::unique(points.begin(), points.end(), same), points.end());
  return points;
}

double turnBetween(const Assembly& assembly, double from_rad, double to_rad) {
  double most = to_rad - from_rad;
  const double from = assembly.baseOpening_rad(from_rad), to = assembly.baseOpening_rad(to_rad);
  for (const Drive& drive : assembly.drives)
    most = std::max(most, std::abs(drive.angle_rad(to) - drive.angle_rad(from)));
  return most;
}

std::vector<double> openingsToLookAt(const Assembly& assembly, double step_rad) {
  const std::vector<double> points = turningPoints(assembly);
  std::vector<double> openings{points.front()};
  for (std::size_t k = 0; k + 1 < points.size(); ++k) {
    const double from = points[k], to = points[k + 1];
    const int steps =
        std::max(1, static_cast<int>(std::ceil(turnBetween(assembly, from, to) / step_rad)));
    for (int i = 1; i <= steps; ++i)
      openings.push_back(i == steps ? to : from + (to - from) * i / steps);
  }
  return openings;
}

} // namespace hinge
