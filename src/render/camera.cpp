// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/camera.h"
#include <cmath>

namespace hinge {

Eigen::Matrix3d Camera::axes() const {
  const Vec3 back(std::sin(turn_rad) * std::cos(height_rad),
                  -std::cos(turn_rad) * std::cos(height_rad), std::sin(height_rad));
  const Vec3 right(std::cos(turn_rad), std::sin(turn_rad), 0);
  Eigen::Matrix3d m;
  m.row(0) = right;
  m.row(1) = back.cross(right);
  m.row(2) = back;
  return m;
}

Vec3 Camera::eye() const {
  return target + distance_mm * axes().row(2).transpose();
}

Vec3 Camera::toEye(const Vec3& world) const {
  return axes() * (world - target);
}

QPointF Camera::project(const Vec3& world) const {
  const Vec3 e = toEye(world);
  const double k = scale_px * distance_mm / std::max(1.0, distance_mm - e.z());
  return {centre.x() + k * e.x(), centre.y() - k * e.y()};
}

} // namespace hinge
