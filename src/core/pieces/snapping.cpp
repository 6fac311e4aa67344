// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/snapping.h"
#include "core/geom/border.h"
#include "core/units/lattice.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <utility>

namespace hinge {
namespace {

/// The nearest place so far of the best kind; a kind that comes later never takes over.
class Nearest {
public:
  Nearest(const Vec2& at, double reach_mm) : m_at(at), m_reach_mm(reach_mm) {}

  void offer(const Vec2& place, SnapTo to) {
    if (m_done) return;
    const double far = (place - m_at).norm();
    if (far < m_least) m_least = far, m_best = {place, to};
  }
  /// What has been offered so far is taken when it is near enough.
  void settle() { m_done = m_done || m_least < m_reach_mm; }
  std::optional<Snapped> found() const { return m_done ? std::optional(m_best) : std::nullopt; }

private:
  Vec2 m_at;
  double m_reach_mm, m_least = 1e300;
  Snapped m_best;
  bool m_done = false;
};

std::optional<Vec2> crossing(const Edge& a, const Edge& b) {
  const Vec2 u = a.second - a.first, v = b.second - b.first;
  const double den = cross2(u, v);
  if (std::abs(den) < 1e-9) return std::nullopt;
  const double t = cross2(b.first - a.first, v) / den, s = cross2(b.first - a.first, u) / den;
  if (t < 0 || t > 1 || s < 0 || s > 1) return std::nullopt;
  return Vec2(a.first + t * u);
}

/// Along an edge places are taken on the lattice where that leads along one axis.
Vec2 tidyOn(const Edge& edge, const Vec2& at, const Vec2& origin, double lattice_mm) {
  const Vec2 near = nearestOn(edge, at), along = edge.second - edge.first;
  if (lattice_mm <= 0) return near;
  for (int axis : {0, 1}) {
    if (std::abs(along[1 - axis]) > std::abs(along[axis])) continue;
    const double wanted = origin[axis] + onLattice(near[axis] - origin[axis], lattice_mm);
    const double share = (wanted - edge.first[axis]) / along[axis];
    if (share >= 0 && share <= 1) return edge.first + share * along;
  }
  return near;
}

std::vector<Edge> linesOf(const PieceWork& work, const Snapping& how) {
  std::vector<Edge> lines;
  for (std::size_t k = 0; k < work.lines.size(); ++k)
    if (k != how.line) lines.push_back({work.lines[k].from, work.lines[k].to});
  return lines;
}

} // namespace

Snapped snappedPoint(const PieceWork& work, const Vec2& at, const Snapping& how) {
  Nearest nearest(at, how.reach_mm);
  const auto lines = linesOf(work, how);
  std::vector<Edge> rims = edgesOf(work.outline);
  for (const Polygon& window : work.windows)
    for (const Edge& edge : edgesOf(window))
      rims.push_back(edge);
  for (const Edge& edge : rims)
    nearest.offer(edge.first, SnapTo::Corner);
  nearest.settle();
  for (const Edge& line : lines)
    nearest.offer(line.first, SnapTo::End), nearest.offer(line.second, SnapTo::End);
  nearest.settle();
  for (std::size_t k = 0; k < lines.size(); ++k) {
    for (const Edge& edge : rims)
      if (const auto p = crossing(lines[k], edge)) nearest.offer(*p, SnapTo::Crossing);
    for (std::size_t j = 0; j < k; ++j)
      if (const auto p = crossing(lines[k], lines[j])) nearest.offer(*p, SnapTo::Crossing);
  }
  nearest.settle();
  for (const std::vector<Edge>* edges : {&std::as_const(rims), &lines})
    for (const Edge& edge : *edges)
      nearest.offer(0.5 * (edge.first + edge.second), SnapTo::Middle);
  nearest.settle();
  const Vec2 origin = boundsOf(work.outline).low;
  for (const Edge& edge : rims)
    if ((nearestOn(edge, at) - at).norm() < how.reach_mm)
      nearest.offer(tidyOn(edge, at, origin, how.lattice_mm), SnapTo::Rim);
  nearest.settle();
  for (const Edge& line : lines)
    if ((nearestOn(line, at) - at).norm() < how.reach_mm)
      nearest.offer(tidyOn(line, at, origin, how.lattice_mm), SnapTo::Line);
  nearest.settle();
  if (const auto found = nearest.found()) return *found;
  if (how.lattice_mm <= 0) return {at, SnapTo::Free};
  return {origin + Vec2(onLattice(at.x() - origin.x(), how.lattice_mm),
                        onLattice(at.y() - origin.y(), how.lattice_mm)),
          SnapTo::Lattice};
}

std::optional<Vec2> snappedParallel(const PieceWork& work, const Vec2& from, const Vec2& at,
                                    const Snapping& how) {
  std::vector<Vec2> ways{Vec2::UnitX(), Vec2::UnitY()};
  for (const auto& edges : {edgesOf(work.outline), linesOf(work, how)})
    for (const Edge& edge : edges)
      ways.push_back((edge.second - edge.first).normalized());
  std::optional<Vec2> best;
  double least = how.reach_mm;
  for (const Vec2& way : ways) {
    const double along = way.dot(at - from);
    const Vec2 there = from + along * way;
    if (const double far = (there - at).norm(); far < least) {
      least = far;
      best = how.lattice_mm > 0 ? Vec2(from + onLattice(along, how.lattice_mm) * way) : there;
    }
  }
  return best;
}

SnappedPlace snappedPlace(const PieceWork& work, int axis, double at, const Snapping& how) {
  const Box2 box = boundsOf(work.outline);
  const double low = box.low[axis], high = box.high[axis];
  std::vector<double> places{low, high};
  for (const Edge& line : linesOf(work, how))
    if (std::abs((line.second - line.first)[axis]) < kTouch_mm) places.push_back(line.first[axis]);
  SnappedPlace best;
  double least = how.reach_mm;
  const auto offer = [&](double place, SnapTo to) {
    if (const double far = std::abs(place - at); far < least - kTouch_mm)
      least = far, best = {place, to};
  };
  offer(0.5 * (low + high), SnapTo::Middle);
  for (std::size_t k = 2; k < places.size(); ++k)
    offer(low + high - places[k], SnapTo::Twin);
  std::ranges::sort(places);
  for (std::size_t k = 0; k + 1 < places.size(); ++k) {
    const double step = places[k + 1] - places[k];
    if (step < how.reach_mm) continue;
    offer(places[k + 1] + step, SnapTo::EqualStep);
    offer(places[k] - step, SnapTo::EqualStep);
  }
  for (const Vec2& corner : work.outline)
    offer(corner[axis], SnapTo::Corner);
  // What stands on the rim is no score.
  if (best.to != SnapTo::Free && best.at > low + kTouch_mm && best.at < high - kTouch_mm)
    return best;
  if (how.lattice_mm <= 0) return {at, SnapTo::Free};
  return {low + onLattice(at - low, how.lattice_mm), SnapTo::Lattice};
}

} // namespace hinge
