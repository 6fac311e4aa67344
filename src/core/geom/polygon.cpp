// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/polygon.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {

Box2 boundsOf(const Polygon& polygon) {
  Box2 box;
  for (const Vec2& p : polygon)
    box.add(p);
  return box;
}

double signedArea_mm2(const Polygon& polygon) {
  double twice = 0;
  for (std::size_t i = 0; i < polygon.size(); ++i)
    twice += cross2(polygon[i], polygon[(i + 1) % polygon.size()]);
  return 0.5 * twice;
}

Vec2 centroidOf(const Polygon& polygon) {
  Vec2 sum = Vec2::Zero();
  double twice = 0;
  for (std::size_t i = 0; i < polygon.size(); ++i) {
    const Vec2 &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
    const double w = cross2(a, b);
    sum += w * (a + b);
    twice += w;
  }
  if (std::abs(twice) < 1e-12) return boundsOf(polygon).centre();
  return sum / (3.0 * twice);
}

bool isSimple(const Polygon& polygon) {
  const std::size_t n = polygon.size();
  if (n < 3) return false;
  for (std::size_t i = 0; i < n; ++i) {
    const Vec2 &a = polygon[i], &b = polygon[(i + 1) % n];
    if ((b - a).norm() < 1e-9) return false;
    for (std::size_t j = i + 1; j < n; ++j) {
      const bool next = j == i + 1, last = i == 0 && j == n - 1;
      const Vec2 &c = polygon[j], &d = polygon[(j + 1) % n];
      if (next ||
          last) { // neighbours may only meet at the shared corner: no folding back onto itself
        const Vec2 u = next ? Vec2(a - b) : Vec2(b - a), v = next ? Vec2(d - c) : Vec2(c - d);
        if (std::abs(cross2(u, v)) < 1e-12 * u.norm() * v.norm() && u.dot(v) > 0) return false;
        continue;
      }
      const double c1 = cross2(b - a, c - a), c2 = cross2(b - a, d - a);
      const double c3 = cross2(d - c, a - c), c4 = cross2(d - c, b - c);
      if (((c1 > 0) != (c2 > 0)) && ((c3 > 0) != (c4 > 0))) return false;
      const double near = std::min({distanceToSegment(c, a, b), distanceToSegment(a, c, d)});
      if (near < 1e-9) return false;
    }
  }
  return true;
}

double distanceToSegment(const Vec2& point, const Vec2& from, const Vec2& to) {
  const Vec2 d = to - from;
  const double length2 = d.squaredNorm();
  const double s = length2 > 0 ? std::clamp(d.dot(point - from) / length2, 0.0, 1.0) : 0.0;
  return (point - (from + s * d)).norm();
}

double distanceToOutline(const Polygon& polygon, const Vec2& point) {
  double best = 1e300;
  for (std::size_t i = 0, j = polygon.size() - 1; i < polygon.size(); j = i++)
    best = std::min(best, distanceToSegment(point, polygon[j], polygon[i]));
  return best;
}

std::vector<Edge> edgesOf(const Polygon& polygon) {
  std::vector<Edge> edges;
  edges.reserve(polygon.size());
  for (std::size_t k = 0; k < polygon.size(); ++k)
    edges.push_back({polygon[k], polygon[(k + 1) % polygon.size()]});
  return edges;
}

bool encloses(const Polygon& polygon, const Vec2& point) {
  bool inside = false;
  for (std::size_t i = 0, j = polygon.size() - 1; i < polygon.size(); j = i++) {
    const Vec2 &a = polygon[i], &b = polygon[j];
    if ((a.y() > point.y()) != (b.y() > point.y()) &&
        point.x() < (b.x() - a.x()) * (point.y() - a.y()) / (b.y() - a.y()) + a.x())
      inside = !inside;
  }
  return inside;
}

bool contains(const Polygon& polygon, const Vec2& point, double margin_mm) {
  return encloses(polygon, point) || distanceToOutline(polygon, point) <= margin_mm;
}

Polygon clipToHalfPlane(const Polygon& polygon, const Vec2& point, const Vec2& normal) {
  Polygon out;
  for (std::size_t i = 0; i < polygon.size(); ++i) {
    const Vec2 &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
    const double da = normal.dot(a - point), db = normal.dot(b - point);
    if (da >= 0) out.push_back(a);
    if ((da > 0 && db < 0) || (da < 0 && db > 0)) out.push_back(a + (b - a) * (da / (da - db)));
  }
  // Clipping through a corner leaves it twice.
  Polygon clean;
  for (const Vec2& p : out)
    if (clean.empty() || (p - clean.back()).norm() > 1e-9) clean.push_back(p);
  while (clean.size() > 1 && (clean.front() - clean.back()).norm() <= 1e-9)
    clean.pop_back();
  if (clean.size() < 3) clean.clear();
  return clean;
}

Polygon intersectConvex(const Polygon& a, const Polygon& b) {
  Polygon out = a;
  for (std::size_t i = 0; i < b.size() && !out.empty(); ++i) {
    const Vec2 d = b[(i + 1) % b.size()] - b[i];
    out = clipToHalfPlane(out, b[i], Vec2(-d.y(), d.x()));
  }
  return out;
}

namespace {

bool isConvex(const Polygon& p) {
  for (std::size_t i = 0; i < p.size(); ++i)
    if (cross2(p[(i + 1) % p.size()] - p[i], p[(i + 2) % p.size()] - p[(i + 1) % p.size()]) < -1e-9)
      return false;
  return true;
}

/// Joins b to a along a shared edge; nothing when they share none.
std::optional<Polygon> joined(const Polygon& a, const Polygon& b) {
  const auto same = [](const Vec2& p, const Vec2& q) { return (p - q).squaredNorm() < 1e-18; };
  for (std::size_t i = 0; i < a.size(); ++i)
    for (std::size_t j = 0; j < b.size(); ++j) {
      if (!same(a[i], b[(j + 1) % b.size()]) || !same(a[(i + 1) % a.size()], b[j])) continue;
      Polygon out;
      for (std::size_t k = 0; k < a.size(); ++k)
        out.push_back(a[(i + 1 + k) % a.size()]);
      for (std::size_t k = 2; k < b.size(); ++k)
        out.push_back(b[(j + k) % b.size()]);
      return out;
    }
  return std::nullopt;
}

std::vector<Polygon> triangulate(Polygon rest) {
  std::vector<Polygon> triangles;
  while (rest.size() > 3) {
    std::size_t best = rest.size();
    double bestArea = 1e-12;
    for (std::size_t i = 0; i < rest.size(); ++i) {
      const Vec2 &a = rest[(i + rest.size() - 1) % rest.size()], &b = rest[i],
                 &c = rest[(i + 1) % rest.size()];
      const double area = cross2(b - a, c - b);
      if (area <= bestArea) continue;
      bool empty = true;
      for (const Vec2& p : rest) {
        const bool corner =
            (p - a).norm() < 1e-12 || (p - b).norm() < 1e-12 || (p - c).norm() < 1e-12;
        if (!corner && cross2(b - a, p - a) >= -1e-12 && cross2(c - b, p - b) >= -1e-12 &&
            cross2(a - c, p - c) >= -1e-12)
          empty = false;
      }
      if (empty) best = i, bestArea = area;
    }
    if (best == rest.size()) { // only straight corners are left: drop one, no area is lost
      std::size_t flattest = 0;
      double least = 1e300;
      for (std::size_t i = 0; i < rest.size(); ++i) {
        const double area = std::abs(cross2(rest[i] - rest[(i + rest.size() - 1) % rest.size()],
                                            rest[(i + 1) % rest.size()] - rest[i]));
        if (area < least) least = area, flattest = i;
      }
      rest.erase(rest.begin() + static_cast<std::ptrdiff_t>(flattest));
      continue;
    }
    triangles.push_back(
        {rest[(best + rest.size() - 1) % rest.size()], rest[best], rest[(best + 1) % rest.size()]});
    rest.erase(rest.begin() + static_cast<std::ptrdiff_t>(best));
  }
  triangles.push_back(rest);
  return triangles;
}

} // namespace

std::vector<Polygon> convexParts(const Polygon& polygon) {
  if (isConvex(polygon)) return {polygon};
  std::vector<Polygon> parts = triangulate(polygon);
  for (std::size_t i = 0; i < parts.size(); ++i)
    for (std::size_t j = i + 1; j < parts.size();) {
      const auto merged = joined(parts[i], parts[j]);
      if (merged && isConvex(*merged)) {
        parts[i] = *merged;
        parts.erase(parts.begin() + static_cast<std::ptrdiff_t>(j));
        j = i + 1;
      } else {
        ++j;
      }
    }
  return parts;
}

bool insertOnOutline(Polygon& polygon, const Vec2& point) {
  for (const Vec2& p : polygon)
    if ((p - point).norm() < 1e-9) return true;
  for (std::size_t i = 0; i < polygon.size(); ++i)
    if (distanceToSegment(point, polygon[i], polygon[(i + 1) % polygon.size()]) < 1e-6) {
      polygon.insert(polygon.begin() + static_cast<std::ptrdiff_t>(i + 1), point);
      return true;
    }
  return false;
}

double reachInside(const Polygon& polygon, const Vec2& from, const Vec2& direction) {
  double farthest = 0;
  for (std::size_t i = 0; i < polygon.size(); ++i) {
    const Vec2 &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
    const double denominator = cross2(direction, b - a);
    if (std::abs(denominator) < 1e-12) continue;
    const double s = cross2(a - from, b - a) / denominator,
                 u = cross2(a - from, direction) / denominator;
    if (s > 0 && u >= -1e-9 && u <= 1 + 1e-9) farthest = std::max(farthest, s);
  }
  return farthest;
}

std::vector<Vec2> convexHull(std::vector<Vec2> points) {
  // Corners that only rounding sets apart would send the chains back and forth: onto a lattice
  // finer than anything measured.
  for (Vec2& p : points)
    p = Vec2(std::round(p.x() / kSamePoint_mm), std::round(p.y() / kSamePoint_mm)) * kSamePoint_mm;
  std::ranges::sort(points, [](const Vec2& a, const Vec2& b) {
    return a.x() != b.x() ? a.x() < b.x() : a.y() < b.y();
  });
  std::vector<Vec2> hull;
  // Lower chain from left to right, then the upper one back.
  for (int chain = 0; chain < 2; ++chain) {
    const std::size_t start = hull.size();
    for (const Vec2& p : points) {
      while (hull.size() >= start + 2 &&
             cross2(hull.back() - hull[hull.size() - 2], p - hull[hull.size() - 2]) <= 1e-9)
        hull.pop_back();
      hull.push_back(p);
    }
    if (!hull.empty()) hull.pop_back(); // the first of the next chain
    std::ranges::reverse(points);
  }
  if (hull.empty() && !points.empty()) hull.push_back(points.front());
  return hull;
}

} // namespace hinge
