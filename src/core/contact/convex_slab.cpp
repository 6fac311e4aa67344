// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/contact/convex_slab.h"
#include <algorithm>
#include <cmath>
#include <tuple>

namespace hinge {
namespace {

/// The most of all that the search for plates does: plain sums, which beat products of matrices.
double dot(const Vec3& a, const Vec3& b) {
  return a.x() * b.x() + a.y() * b.y() + a.z() * b.z();
}

struct Extent {
  double low = 1e300, high = -1e300;
};

Extent along(const ConvexSlab& slab, const Vec3& way) {
  Extent out;
  for (const Vec3& corner : slab.corners) {
    const double s = dot(way, corner);
    out.low = std::min(out.low, s), out.high = std::max(out.high, s);
  }
  const double up = dot(way, slab.normal), from = up * slab.from_mm, to = up * slab.to_mm;
  out.low += std::min(from, to), out.high += std::max(from, to);
  return out;
}

/// The gap between two slabs when one lies beyond the other along a direction, or before it.
struct Gaps {
  double beyond = 0, before = 0;
  double wider() const { return std::max(beyond, before); }
};

Gaps gapsAlong(const ConvexSlab& a, const ConvexSlab& b, const Vec3& way, double length) {
  const Extent ea = along(a, way), eb = along(b, way);
  return {(eb.low - ea.high) / length, (ea.low - eb.high) / length};
}

/// The directions that can part two slabs, by number.
std::size_t waysBetween(const ConvexSlab& a, const ConvexSlab& b) {
  return 3 + 2 * a.edges.size() + 2 * b.edges.size() + a.edges.size() * b.edges.size();
}
Vec3 wayBetween(const ConvexSlab& a, const ConvexSlab& b, std::size_t k) {
  if (k == 0) return a.normal;
  if (k == 1) return b.normal;
  if (k == 2) return a.normal.cross(b.normal);
  k -= 3;
  for (const auto* edges : {&a.edges, &b.edges}) {
    if (k < 2 * edges->size()) return (*edges)[k / 2].cross(k % 2 ? b.normal : a.normal);
    k -= 2 * edges->size();
  }
  return a.edges[k / b.edges.size()].cross(b.edges[k % b.edges.size()]);
}

constexpr double kNoWay = 1e-9; // of parallel edges

Vec3 middleOf(const ConvexSlab& slab) {
  Vec3 sum = Vec3::Zero();
  for (const Vec3& corner : slab.corners)
    sum += corner;
  return sum / static_cast<double>(slab.corners.size());
}

} // namespace

std::vector<Vec3> edgesOf(const ConvexSlab& slab) {
  constexpr double kSameWay_rad = 1e-11, kNoEdge_mm = 1e-9;
  std::vector<Vec3> edges;
  for (std::size_t k = 0; k < slab.corners.size(); ++k) {
    const Vec3 edge = slab.corners[(k + 1) % slab.corners.size()] - slab.corners[k];
    const auto isAlong = [&](const Vec3& other) {
      return edge.cross(other).squaredNorm() <=
             kSameWay_rad * kSameWay_rad * edge.squaredNorm() * other.squaredNorm();
    };
    if (edge.norm() > kNoEdge_mm && std::ranges::none_of(edges, isAlong)) edges.push_back(edge);
  }
  return edges;
}

void move(const ConvexSlab& slab, const Iso3& by, ConvexSlab& out) {
  out.normal = by.linear() * slab.normal, out.from_mm = slab.from_mm, out.to_mm = slab.to_mm;
  out.corners.clear(), out.edges.clear();
  for (const Vec3& corner : slab.corners)
    out.corners.push_back(by * corner);
  for (const Vec3& edge : slab.edges)
    out.edges.push_back(by.linear() * edge);
}

ConvexSlab moved(const ConvexSlab& slab, const Iso3& by) {
  ConvexSlab out;
  move(slab, by, out);
  return out;
}

double gapBetween(const ConvexSlab& a, const ConvexSlab& b, double enough_mm) {
  double widest = -1e300;
  for (std::size_t k = 0; k < waysBetween(a, b) && widest < enough_mm; ++k) {
    const Vec3 way = wayBetween(a, b, k);
    const double length = way.norm();
    if (length > kNoWay) widest = std::max(widest, gapsAlong(a, b, way, length).wider());
  }
  return widest;
}

GapThrough gapThrough(const ConvexSlab& a, const std::array<ConvexSlab, 3>& b, double wanted_mm) {
  double widest = -1e300;
  for (std::size_t k = 0; k < waysBetween(a, b[1]); ++k) {
    const Vec3 way = wayBetween(a, b[1], k);
    const double length = way.norm();
    if (length <= kNoWay) continue;
    const Gaps middle = gapsAlong(a, b[1], way, length);
    widest = std::max(widest, middle.wider());
    if (middle.wider() <= wanted_mm) continue;
    const bool isBeyond = middle.beyond > middle.before;
    const auto atEnd = [&](const ConvexSlab& there) {
      const Vec3 turned = wayBetween(a, there, k);
      const double long_mm = turned.norm();
      if (long_mm <= kNoWay) return -1e300;
      const Gaps gaps = gapsAlong(a, there, turned, long_mm);
      return isBeyond ? gaps.beyond : gaps.before;
    };
    const double start = atEnd(b[0]);
    if (start <= wanted_mm) continue;
    const double end = atEnd(b[2]);
    const double bend =
        0.5 * std::abs(start - 2 * middle.wider() + end) + 0.25 * std::abs(end - start);
    if (std::min({start, middle.wider(), end}) - bend > wanted_mm) return {true};
  }
  return {false, widest};
}

Vec3 placeBetween(const ConvexSlab& a, const ConvexSlab& b) {
  const Vec3 ma = middleOf(a), mb = middleOf(b);
  Vec3 best = 0.5 * (ma + mb);
  double nearest = 1e300;
  for (const auto& [one, other, to] : {std::tuple{&a, &b, &mb}, std::tuple{&b, &a, &ma}})
    for (const Vec3& corner : one->corners) {
      const double off =
          std::abs(other->normal.dot(corner - other->corners[0])) + 0.01 * (corner - *to).norm();
      if (off < nearest) nearest = off, best = corner;
    }
  return best;
}

std::array<Vec3, 8> AxisBox::corners() const {
  std::array<Vec3, 8> all;
  for (std::size_t k = 0; k < 8; ++k)
    all[k] = middle + Vec3(k & 1 ? 1 : -1, k & 2 ? 1 : -1, k & 4 ? 1 : -1).cwiseProduct(half);
  return all;
}

AxisBox boxOf(const std::vector<ConvexSlab>& slabs) {
  Vec3 low = Vec3::Constant(1e300), high = Vec3::Constant(-1e300);
  for (const ConvexSlab& slab : slabs)
    for (const Vec3& corner : slab.corners)
      for (const double off : {slab.from_mm, slab.to_mm}) {
        const Vec3 point = corner + off * slab.normal;
        low = low.cwiseMin(point), high = high.cwiseMax(point);
      }
  return {0.5 * (low + high), 0.5 * (high - low)};
}

double gapBetween(const AxisBox& a, const AxisBox& b) {
  return ((a.middle - b.middle).cwiseAbs() - a.half - b.half).maxCoeff();
}

} // namespace hinge
