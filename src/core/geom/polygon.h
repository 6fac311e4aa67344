// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/vectors.h"
#include <optional>
#include <vector>

namespace hinge {

/// Simple polygon, corners counter-clockwise, millimetres, no repeated last corner. Paper with
/// holes in it is a Region.
using Polygon = std::vector<Vec2>;

/// A level rectangle (mm) that grows with what is added; empty at first.
struct Box2 {
  Vec2 low = Vec2::Constant(1e300), high = Vec2::Constant(-1e300);
  void add(const Vec2& p) { low = low.cwiseMin(p), high = high.cwiseMax(p); }
  void add(const Box2& b) { low = low.cwiseMin(b.low), high = high.cwiseMax(b.high); }
  Vec2 size() const { return high - low; }
  Vec2 centre() const { return 0.5 * (low + high); }
  bool empty() const { return low.x() > high.x(); }
};

Box2 boundsOf(const Polygon& polygon);
double signedArea_mm2(const Polygon& polygon); ///< positive when counter-clockwise
Vec2 centroidOf(const Polygon& polygon);

/// No two edges cross or touch except neighbours at their corner. O(n^2).
bool isSimple(const Polygon& polygon);

using Edge = std::pair<Vec2, Vec2>;
std::vector<Edge> edgesOf(const Polygon& polygon);

/// Inside by an even-odd count; points on the edge fall to either side.
bool encloses(const Polygon& polygon, const Vec2& point);

/// Inside or on the edge (within `margin_mm` outside of it counts as on).
bool contains(const Polygon& polygon, const Vec2& point, double margin_mm = 0.0);

double distanceToSegment(const Vec2& point, const Vec2& from, const Vec2& to);
double distanceToOutline(const Polygon& polygon, const Vec2& point);

/// The part of a convex polygon where normal . (p - point) >= 0; empty when nothing is left.
Polygon clipToHalfPlane(const Polygon& polygon, const Vec2& point, const Vec2& normal);

/// Overlap of two convex polygons (may be empty).
Polygon intersectConvex(const Polygon& a, const Polygon& b);

/// Corners of the convex hull to 1e-6 mm, counter-clockwise; fewer than three points (or all on one
/// line) come back as they span.
std::vector<Vec2> convexHull(std::vector<Vec2> points);

/// Splits a simple polygon into convex parts (ears, merged while convex). O(n^2).
std::vector<Polygon> convexParts(const Polygon& polygon);

/// Puts `point` as a corner on the edge it lies on (within 1e-6 mm). False when it is on no edge;
/// true and unchanged when it is a corner already.
bool insertOnOutline(Polygon& polygon, const Vec2& point);

/// Length from `from` along unit `direction` to the last outline crossing; 0 when the ray leaves at
/// once.
double reachInside(const Polygon& polygon, const Vec2& from, const Vec2& direction);

} // namespace hinge
