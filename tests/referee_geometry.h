// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include <geos_c.h>
#include <memory>

// Plain geometry of the referee: nothing here is the product's.

namespace hinge::test {

/// A piece of paper in a plane of its own, as GEOS has it.
class Area {
public:
  explicit Area(const Region& paper) : m_shape(shapeOf(paper)) {}
  static Area common(const Area& a, const Area& b) {
    return Area(GEOSIntersection_r(context(), a.m_shape.get(), b.m_shape.get()));
  }
  /// The same paper in another flat frame.
  Area moved(const Iso3& map) const {
    GEOSGeometry* copy = GEOSGeom_clone_r(context(), m_shape.get());
    const auto move = [](double* x, double* y, void* by) {
      const Vec3 there = *static_cast<const Iso3*>(by) * Vec3(*x, *y, 0);
      *x = there.x(), *y = there.y();
      return 1;
    };
    Area out(GEOSGeom_transformXY_r(context(), copy, move, const_cast<Iso3*>(&map)));
    GEOSGeom_destroy_r(context(), copy);
    return out;
  }
  double size_mm2() const {
    double size = 0;
    if (m_shape) GEOSArea_r(context(), m_shape.get(), &size);
    return size;
  }
  bool has(const Vec2& p) const {
    const Shape point(GEOSGeom_createPointFromXY_r(context(), p.x(), p.y()));
    return m_shape && GEOSContains_r(context(), m_shape.get(), point.get()) == 1;
  }
  /// The corners of all its parts.
  std::vector<Vec2> corners() const {
    std::vector<Vec2> all;
    if (!m_shape) return all;
    for (int k = 0; k < GEOSGetNumGeometries_r(context(), m_shape.get()); ++k) {
      const GEOSGeometry* part = GEOSGetGeometryN_r(context(), m_shape.get(), k);
      if (GEOSGeomTypeId_r(context(), part) != GEOS_POLYGON) continue;
      const GEOSGeometry* rim = GEOSGetExteriorRing_r(context(), part);
      const GEOSCoordSequence* points = GEOSGeom_getCoordSeq_r(context(), rim);
      unsigned count = 0;
      GEOSCoordSeq_getSize_r(context(), points, &count);
      for (unsigned i = 0; i < count; ++i) {
        Vec2 p;
        GEOSCoordSeq_getXY_r(context(), points, i, &p.x(), &p.y());
        all.push_back(p);
      }
    }
    return all;
  }

private:
  static GEOSContextHandle_t context() {
    static const GEOSContextHandle_t made = GEOS_init_r();
    return made;
  }
  struct Ends {
    void operator()(GEOSGeometry* shape) const { GEOSGeom_destroy_r(context(), shape); }
  };
  using Shape = std::unique_ptr<GEOSGeometry, Ends>;

  explicit Area(GEOSGeometry* made) : m_shape(made) {}
  static GEOSGeometry* ringOf(const Polygon& corners) {
    auto* points = GEOSCoordSeq_create_r(context(), static_cast<unsigned>(corners.size() + 1), 2);
    for (unsigned k = 0; k <= corners.size(); ++k) {
      const Vec2& p = corners[k % corners.size()];
      GEOSCoordSeq_setXY_r(context(), points, k, p.x(), p.y());
    }
    return GEOSGeom_createLinearRing_r(context(), points);
  }
  static Shape shapeOf(const Region& paper) {
    std::vector<GEOSGeometry*> holes;
    for (const Polygon& hole : paper.holes)
      holes.push_back(ringOf(hole));
    GEOSGeometry* drawn = GEOSGeom_createPolygon_r(context(), ringOf(paper.rim), holes.data(),
                                                   static_cast<unsigned>(holes.size()));
    Shape sound(GEOSBuffer_r(context(), drawn, 0, 8)); // corners that touch are no trouble then
    GEOSGeom_destroy_r(context(), drawn);
    return sound;
  }

  Shape m_shape;
};

/// Where a panel is: its plane in the world, and its paper there.
struct PlacedPanel {
  Iso3 pose;
  Vec3 normal, low = Vec3::Constant(1e300), high = Vec3::Constant(-1e300);

  PlacedPanel(const Iso3& at, const Region& paper) : pose(at), normal(at.linear().col(2)) {
    for (const Vec2& p : paper.rim) {
      const Vec3 q = at * lift(p);
      low = low.cwiseMin(q), high = high.cwiseMax(q);
    }
  }
  double over(const Vec3& p) const { return normal.dot(p - pose.translation()); }
  Vec2 inPlane(const Vec3& p) const { return (pose.inverse() * p).head<2>(); }
  bool mayMeet(const PlacedPanel& other) const {
    constexpr double kNear_mm = 0.01;
    return (low.array() <= other.high.array() + kNear_mm).all() &&
           (other.low.array() <= high.array() + kNear_mm).all();
  }
};

/// Where a line u = t of a flat panel is on paper: the crossings with its edges, sorted. Inside
/// between the first and second, third and fourth ... (holes included).
inline std::vector<double> crossings(const Region& paper, const Vec2& on, const Vec2& way) {
  std::vector<double> at;
  const auto add = [&](const Polygon& ring) {
    for (std::size_t k = 0; k < ring.size(); ++k) {
      const Vec2 p = ring[k] - on, q = ring[(k + 1) % ring.size()] - on;
      const double sp = way.x() * p.y() - way.y() * p.x(), sq = way.x() * q.y() - way.y() * q.x();
      if ((sp > 0) == (sq > 0)) continue;
      const Vec2 x = p + (q - p) * (sp / (sp - sq));
      at.push_back(way.dot(x));
    }
  };
  add(paper.rim);
  for (const Polygon& hole : paper.holes)
    add(hole);
  std::sort(at.begin(), at.end());
  return at;
}

/// How much paper there is round a point of a panel along a line, one way and the other; nothing
/// when the point is in the open.
inline std::array<double, 2> paperRound(const Region& paper, const Vec2& on, const Vec2& way) {
  const std::vector<double> at = crossings(paper, on, way);
  for (std::size_t k = 0; k + 1 < at.size(); k += 2)
    if (at[k] < 0 && at[k + 1] > 0) return {-at[k], at[k + 1]};
  return {0, 0};
}

/// How deep two panels pass through one another: at some place of their common line the least of
/// the paper on either side of each, and never more than the stretch of line they share.
inline double crossingOf(const PlacedPanel& a, const Region& paperA, const PlacedPanel& b,
                         const Region& paperB) {
  Vec3 line = a.normal.cross(b.normal);
  const double sine = line.norm();
  if (sine < 1e-7) return 0;
  line /= sine;
  // A point on both planes.
  const Vec3 acrossA = a.normal.cross(line), acrossB = b.normal.cross(line);
  const double slope = acrossA.dot(b.normal);
  const Vec3 on = a.pose.translation() - acrossA * (b.over(a.pose.translation()) / slope);
  const auto flat = [](const PlacedPanel& p, const Vec3& way) {
    return Vec2((p.pose.linear().transpose() * way).head<2>());
  };
  const auto stretches = [&](const PlacedPanel& p, const Region& paper) {
    return crossings(paper, p.inPlane(on), flat(p, line));
  };
  const std::vector<double> sa = stretches(a, paperA), sb = stretches(b, paperB);
  double deepest = 0;
  for (std::size_t i = 0; i + 1 < sa.size(); i += 2)
    for (std::size_t j = 0; j + 1 < sb.size(); j += 2) {
      const double low = std::max(sa[i], sb[j]), high = std::min(sa[i + 1], sb[j + 1]);
      if (high - low <= deepest) continue;
      for (const double share : {0.5, 0.12, 0.31, 0.69, 0.88}) {
        const Vec3 at = on + (low + share * (high - low)) * line;
        const auto ra = paperRound(paperA, a.inPlane(at), flat(a, acrossA)),
                   rb = paperRound(paperB, b.inPlane(at), flat(b, acrossB));
        const double over = sine * std::min({ra[0], ra[1], rb[0], rb[1]});
        deepest = std::max(deepest, std::min(over, high - low));
      }
    }
  return deepest;
}

} // namespace hinge::test
