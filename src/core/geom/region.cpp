// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/region.h"
#include "core/geom/subdivision.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <polyclipping/clipper.hpp>

namespace hinge {

std::vector<const Polygon*> ringsOf(const Region& region) {
  std::vector<const Polygon*> rings{&region.rim};
  for (const Polygon& hole : region.holes)
    rings.push_back(&hole);
  return rings;
}

std::vector<Edge> edgesOf(const Region& region) {
  std::vector<Edge> edges = edgesOf(region.rim);
  for (const Polygon& hole : region.holes)
    for (const Edge& edge : edgesOf(hole))
      edges.push_back(edge);
  return edges;
}

Box2 boundsOf(const Region& region) {
  return boundsOf(region.rim);
}

double area_mm2(const Region& region) {
  double area = std::abs(signedArea_mm2(region.rim));
  for (const Polygon& hole : region.holes)
    area -= std::abs(signedArea_mm2(hole));
  return area;
}

Vec2 centroidOf(const Region& region) {
  if (region.holes.empty()) return centroidOf(region.rim);
  double area = std::abs(signedArea_mm2(region.rim));
  Vec2 moment = area * centroidOf(region.rim);
  for (const Polygon& hole : region.holes) {
    const double open = std::abs(signedArea_mm2(hole));
    moment -= open * centroidOf(hole), area -= open;
  }
  return area > 1e-12 ? Vec2(moment / area) : boundsOf(region).centre();
}

bool contains(const Region& region, const Vec2& point, double margin_mm) {
  const auto inside = [&](const Polygon& ring) { return encloses(ring, point); };
  if (inside(region.rim) && std::ranges::none_of(region.holes, inside)) return true;
  return margin_mm >= 0 && distanceToOutline(region, point) <= margin_mm;
}

double distanceToOutline(const Region& region, const Vec2& point) {
  double best = distanceToOutline(region.rim, point);
  for (const Polygon& hole : region.holes)
    best = std::min(best, distanceToOutline(hole, point));
  return best;
}

std::vector<Polygon> convexParts(const Region& region) {
  if (region.holes.empty()) return convexParts(region.rim);
  std::vector<Polygon> parts;
  for (const Region& face : subdivide(region, partingLines(region)).faces)
    for (Polygon& part : convexParts(face.rim))
      parts.push_back(std::move(part));
  return parts;
}

Region mapped(const Region& region, const Iso3& map) {
  const bool over = map.linear()(2, 2) < 0;
  const auto ring = [&](const Polygon& corners) {
    Polygon out;
    out.reserve(corners.size());
    for (const Vec2& p : corners)
      out.push_back((map * lift(p)).head<2>());
    if (over) std::ranges::reverse(out);
    return out;
  };
  Region out(ring(region.rim));
  for (const Polygon& hole : region.holes)
    out.holes.push_back(ring(hole));
  return out;
}

namespace {

/// Least distance between two stretches; 0 when they cross.
double apart_mm(const Edge& a, const Edge& b) {
  const Vec2 u = a.second - a.first, v = b.second - b.first;
  const bool cross = (cross2(u, b.first - a.first) > 0) != (cross2(u, b.second - a.first) > 0) &&
                     (cross2(v, a.first - b.first) > 0) != (cross2(v, a.second - b.first) > 0);
  if (cross) return 0.0;
  return std::min({distanceToSegment(a.first, b.first, b.second),
                   distanceToSegment(a.second, b.first, b.second),
                   distanceToSegment(b.first, a.first, a.second),
                   distanceToSegment(b.second, a.first, a.second)});
}

/// Where a ray from a point first meets one of the edges.
Vec2 firstMet(const Vec2& from, const Vec2& way, const std::vector<Edge>& edges) {
  double nearest = 1e300;
  for (const auto& [a, b] : edges) {
    const Vec2 d = b - a;
    const double den = cross2(way, d);
    if (std::abs(den) < 1e-12 * d.norm()) continue;
    const double t = cross2(a - from, d) / den, s = cross2(a - from, way) / den;
    if (t > kSamePoint_mm && s >= -1e-9 && s <= 1 + 1e-9) nearest = std::min(nearest, t);
  }
  return nearest < 1e299 ? Vec2(from + nearest * way) : from;
}

} // namespace

std::optional<Region> withHole(const Region& region, Polygon hole, double least_mm) {
  if (!isSimple(hole)) return std::nullopt;
  if (signedArea_mm2(hole) > 0) std::ranges::reverse(hole);
  const std::vector<Edge> edges = edgesOf(region);
  for (const Edge& own : edgesOf(hole)) {
    if (!contains(region, own.first)) return std::nullopt;
    for (const Edge& e : edges)
      if (apart_mm(own, e) < least_mm) return std::nullopt;
  }
  // A hole round another one would leave a loose piece.
  for (const Edge& e : edges)
    if (contains(hole, e.first)) return std::nullopt;
  Region out = region;
  out.holes.push_back(std::move(hole));
  return out;
}

std::vector<Edge> partingLines(const Region& region, const std::vector<Edge>& cuts) {
  std::vector<Edge> lines = cuts, edges = edgesOf(region);
  edges.insert(edges.end(), cuts.begin(), cuts.end());
  const auto extend = [&](const Vec2& from, const Vec2& way) {
    const Vec2 to = firstMet(from, way, edges);
    if ((to - from).norm() > 1e-6) lines.push_back({from, to});
  };
  for (const Polygon& hole : region.holes) {
    const auto [left, right] =
        std::ranges::minmax_element(hole, {}, [](const Vec2& p) { return p.x(); });
    extend(*left, -Vec2::UnitX()), extend(*right, Vec2::UnitX());
  }
  for (const auto& [from, to] : cuts) {
    const Vec2 along = (to - from).normalized();
    const auto ends = [&](const Vec2& end) { return distanceToOutline(region, end) > 1e-6; };
    if (ends(from)) extend(from, -along);
    if (ends(to)) extend(to, along);
  }
  return lines;
}

namespace {

using ClipperLib::Clipper;
using ClipperLib::IntPoint;
using ClipperLib::Path;
using ClipperLib::Paths;

Path toLattice(const Polygon& ring) {
  Path path;
  path.reserve(ring.size());
  for (const Vec2& p : ring)
    path.push_back(
        IntPoint(std::llround(p.x() / kRegionLattice_mm), std::llround(p.y() / kRegionLattice_mm)));
  return path;
}

Paths toLattice(const Region& region) {
  Paths paths;
  for (const Polygon* ring : ringsOf(region))
    paths.push_back(toLattice(*ring));
  return paths;
}

Polygon fromLattice(const Path& path) {
  Polygon ring;
  ring.reserve(path.size());
  for (const IntPoint& p : path)
    ring.push_back(Vec2(static_cast<double>(p.X), static_cast<double>(p.Y)) * kRegionLattice_mm);
  return ring;
}

std::vector<Region> fromTree(const ClipperLib::PolyTree& tree) {
  std::vector<Region> regions;
  for (const ClipperLib::PolyNode* node = tree.GetFirst(); node; node = node->GetNext()) {
    if (node->IsHole()) continue;
    Region region(fromLattice(node->Contour));
    if (std::abs(signedArea_mm2(region.rim)) < kRegionSpeck_mm2) continue;
    for (const ClipperLib::PolyNode* inner : node->Childs) {
      Polygon hole = fromLattice(inner->Contour);
      if (std::abs(signedArea_mm2(hole)) < kRegionSpeck_mm2) continue;
      if (signedArea_mm2(hole) > 0) std::ranges::reverse(hole);
      region.holes.push_back(std::move(hole));
    }
    if (signedArea_mm2(region.rim) < 0) std::ranges::reverse(region.rim);
    regions.push_back(std::move(region));
  }
  return regions;
}

/// Rings of one region nest by turns; several regions may lie over one another.
std::vector<Region> clipped(ClipperLib::ClipType type, const std::vector<Region>& subjects,
                            const std::vector<Region>& clips) {
  Clipper clipper;
  const auto add = [&](const std::vector<Region>& regions, ClipperLib::PolyType as) {
    for (const Region& region : regions)
      clipper.AddPaths(toLattice(region), as, true);
  };
  add(subjects, ClipperLib::ptSubject), add(clips, ClipperLib::ptClip);
  ClipperLib::PolyTree tree;
  clipper.Execute(type, tree, ClipperLib::pftPositive, ClipperLib::pftPositive);
  return fromTree(tree);
}

} // namespace

std::vector<Region> united(const std::vector<Region>& regions) {
  return clipped(ClipperLib::ctUnion, regions, {});
}

std::vector<Region> without(const Region& region, const std::vector<Region>& taken) {
  return clipped(ClipperLib::ctDifference, {region}, taken);
}

std::vector<Region> common(const Region& a, const Region& b) {
  return clipped(ClipperLib::ctIntersection, {a}, {b});
}

std::vector<Region> offset(const Region& region, double by_mm, CornerStyle corners) {
  constexpr double kMiterLimit = 8, kArcError_mm = 0.01;
  ClipperLib::ClipperOffset moving(kMiterLimit, kArcError_mm / kRegionLattice_mm);
  moving.AddPaths(toLattice(region),
                  corners == CornerStyle::Round ? ClipperLib::jtRound : ClipperLib::jtMiter,
                  ClipperLib::etClosedPolygon);
  ClipperLib::PolyTree tree;
  moving.Execute(tree, by_mm / kRegionLattice_mm);
  return fromTree(tree);
}

double overlapArea_mm2(const Region& a, const Region& b) {
  const Box2 ba = boundsOf(a), bb = boundsOf(b);
  if (ba.empty() || bb.empty() || (ba.low.array() > bb.high.array()).any() ||
      (bb.low.array() > ba.high.array()).any())
    return 0;
  double area = 0;
  if (!a.holes.empty() || !b.holes.empty()) {
    for (const Region& shared : common(a, b))
      area += area_mm2(shared);
    return area;
  }
  // Panels have a handful of corners: convex parts are clipped quicker than a sweep is set up, and
  // every assembly asks this of all neighbours in a piece.
  const std::vector<Polygon> others = convexParts(b.rim);
  for (const Polygon& own : convexParts(a.rim))
    for (const Polygon& other : others)
      if (const Polygon shared = intersectConvex(own, other); !shared.empty())
        area += signedArea_mm2(shared);
  return area;
}

} // namespace hinge
