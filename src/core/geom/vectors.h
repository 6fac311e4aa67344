// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <Eigen/Core>
#include <Eigen/Geometry>

namespace hinge {

using Vec2 = Eigen::Vector2d;
using Vec3 = Eigen::Vector3d;
using Iso3 = Eigen::Isometry3d;

inline Vec3 lift(const Vec2& p) {
  return {p.x(), p.y(), 0.0};
}
inline double cross2(const Vec2& a, const Vec2& b) {
  return a.x() * b.y() - a.y() * b.x();
}

/// Rotation by `angle_rad` (right hand) about the line through `origin` with unit direction `axis`.
inline Iso3 rotationAboutLine(const Vec3& origin, const Vec3& axis, double angle_rad) {
  Iso3 m = Iso3::Identity();
  m.linear() = Eigen::AngleAxisd(angle_rad, axis).toRotationMatrix();
  m.translation() = origin - m.linear() * origin;
  return m;
}

/// Rigid motion that takes the origin to `origin` and the axes to the orthonormal x, y, z.
inline Iso3 frame(const Vec3& origin, const Vec3& x, const Vec3& y, const Vec3& z) {
  Iso3 m = Iso3::Identity();
  m.linear().col(0) = x;
  m.linear().col(1) = y;
  m.linear().col(2) = z;
  m.translation() = origin;
  return m;
}

/// Planar frame in a sheet: origin and x, y inside the plane z = 0, z = x cross y (may point to the
/// sheet's back).
inline Iso3 planarFrame(const Vec2& origin, const Vec2& x, const Vec2& y) {
  return frame(lift(origin), lift(x), lift(y), lift(x).cross(lift(y)));
}

} // namespace hinge
