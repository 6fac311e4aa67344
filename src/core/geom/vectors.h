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

// What follows is compiled once: Eigen's templates for it would cost every source a second or two.

Iso3 inverseOf(const Iso3& motion);

/// Rotation by `angle_rad` (right hand) about the line through `origin` with unit direction `axis`.
Iso3 rotationAboutLine(const Vec3& origin, const Vec3& axis, double angle_rad);

/// Rigid motion that takes the origin to `origin` and the axes to the orthonormal x, y, z.
Iso3 frame(const Vec3& origin, const Vec3& x, const Vec3& y, const Vec3& z);

/// Planar frame in a sheet: origin and x, y inside the plane z = 0, z = x cross y (may point to the
/// sheet's back).
Iso3 planarFrame(const Vec2& origin, const Vec2& x, const Vec2& y);

} // namespace hinge
