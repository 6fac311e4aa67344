// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/vectors.h"

namespace hinge {

Iso3 inverseOf(const Iso3& motion) {
  return motion.inverse();
}

Iso3 rotationAboutLine(const Vec3& origin, const Vec3& axis, double angle_rad) {
  Iso3 m = Iso3::Identity();
  m.linear() = Eigen::AngleAxisd(angle_rad, axis).toRotationMatrix();
  m.translation() = origin - m.linear() * origin;
  return m;
}

Iso3 frame(const Vec3& origin, const Vec3& x, const Vec3& y, const Vec3& z) {
  Iso3 m = Iso3::Identity();
  m.linear().col(0) = x;
  m.linear().col(1) = y;
  m.linear().col(2) = z;
  m.translation() = origin;
  return m;
}

Iso3 planarFrame(const Vec2& origin, const Vec2& x, const Vec2& y) {
  return frame(lift(origin), lift(x), lift(y), lift(x).cross(lift(y)));
}

} // namespace hinge
