// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/nodes.h"
#include <algorithm>

namespace hinge {

Eigen::VectorXd interpolate(const std::vector<std::pair<double, const Eigen::VectorXd*>>& points,
                            double t) {
  Eigen::VectorXd sum = Eigen::VectorXd::Zero(points.front().second->size());
  for (std::size_t i = 0; i < points.size(); ++i) {
    double weight = 1;
    for (std::size_t j = 0; j < points.size(); ++j)
      if (i != j) weight *= (t - points[j].first) / (points[i].first - points[j].first);
    sum += weight * *points[i].second;
  }
  return sum;
}

bool parentsPlaced(const Block& block, const std::vector<char>& placed) {
  return std::ranges::all_of(
      block.needs, [&](BodyIndex b) { return placed[static_cast<std::size_t>(b.value)] != 0; });
}

void markPlaced(const Block& block, std::vector<char>& placed) {
  for (const auto& step : block.steps)
    placed[static_cast<std::size_t>(step.child.value)] = 1;
}

std::vector<char> baseBodies(const Mechanism& m) {
  std::vector<char> placed(m.bodies.size(), 0);
  for (PanelIndex page : m.pages)
    placed[static_cast<std::size_t>(m.bodyOf[page].value)] = 1;
  return placed;
}

} // namespace hinge
