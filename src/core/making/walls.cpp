// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/walls.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr std::size_t kLeaf = 4;
constexpr double kNoMargin_mm = -1; ///< edges do not count as paper
constexpr double kWider_mm = 1e-6;  ///< boxes of flat panels have no thickness; rounding has

} // namespace

Walls::Walls(const Assembly& assembly, Pose pose) : m_pose(std::move(pose)) {
  for (PanelIndex p : assembly.panels.indices()) {
    if (!m_pose.placed[p]) continue;
    Wall wall{p, inverseOf(m_pose.panels[p]), &assembly.panels[p].outline, Vec3::Constant(1e300),
              Vec3::Constant(-1e300)};
    for (const Vec2& c : wall.outline->rim) {
      const Vec3 q = m_pose.panels[p] * lift(c);
      wall.low = wall.low.cwiseMin(q), wall.high = wall.high.cwiseMax(q);
    }
    wall.low.array() -= kWider_mm, wall.high.array() += kWider_mm;
    m_walls.push_back(std::move(wall));
  }
  if (!m_walls.empty()) build(0, m_walls.size());
}

int Walls::build(std::size_t first, std::size_t count) {
  Node node{Vec3::Constant(1e300), Vec3::Constant(-1e300)};
  for (std::size_t k = first; k < first + count; ++k)
    node.low = node.low.cwiseMin(m_walls[k].low), node.high = node.high.cwiseMax(m_walls[k].high);
  node.first = first, node.count = count;
  const int at = static_cast<int>(m_nodes.size());
  m_nodes.push_back(node);
  if (count <= kLeaf) return at;
  Eigen::Index axis = 0;
  (node.high - node.low).maxCoeff(&axis);
  const std::size_t half = count / 2;
  const auto from = m_walls.begin() + static_cast<std::ptrdiff_t>(first);
  std::nth_element(from, from + static_cast<std::ptrdiff_t>(half),
                   from + static_cast<std::ptrdiff_t>(count), [axis](const Wall& a, const Wall& b) {
                     return a.low[axis] + a.high[axis] < b.low[axis] + b.high[axis];
                   });
  const int left = build(first, half), right = build(first + half, count - half);
  m_nodes[static_cast<std::size_t>(at)].left = left;
  m_nodes[static_cast<std::size_t>(at)].right = right;
  return at;
}

/// Directions of a half-sphere about a unit vector, to 70 degrees from it, the straight one first.
std::vector<Vec3> Walls::waysFrom(const Vec3& axis) {
  const Vec3 u = axis.unitOrthogonal(), v = axis.cross(u);
  std::vector<Vec3> all{axis};
  for (double off : {25.0, 50.0, 70.0})
    for (int k = 0; k < 12; ++k) {
      const double a = radians(off), b = radians(30.0 * k + off);
      all.push_back(std::cos(a) * axis + std::sin(a) * (std::cos(b) * u + std::sin(b) * v));
    }
  return all;
}

bool Walls::stands(const Wall& wall, const Way& way) {
  // Most ways near a panel do not cross its plane; heights over it cost a third of places.
  const auto height = [&](const Vec3& p) {
    return wall.toPanel.linear().row(2).dot(p) + wall.toPanel.translation().z();
  };
  if ((height(way.from) > 0) == (height(way.to) > 0)) return false;
  const Vec3 a = wall.toPanel * way.from, b = wall.toPanel * way.to;
  if ((a.z() > 0) == (b.z() > 0) || std::abs(a.z() - b.z()) < 1e-9) return false;
  const Vec3 hit = a + (b - a) * (a.z() / (a.z() - b.z()));
  return contains(*wall.outline, hit.head<2>(), kNoMargin_mm);
}

} // namespace hinge
