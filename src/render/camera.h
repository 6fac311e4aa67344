// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/vectors.h"
#include <QPointF>

namespace hinge {

/// Looks at a target from a turn about the vertical and a height; mild perspective. Screen y points
/// down.
struct Camera {
  Vec3 target = Vec3::Zero();
  double turn_rad = -0.45;  ///< 0: along the gutter from its start
  double height_rad = 0.52; ///< above the horizon
  double distance_mm = 900;
  double scale_px = 3.0; ///< pixels per mm at the target
  QPointF centre;        ///< screen point of the target

  Vec3 eye() const;
  /// Eye coordinates: x right, y up, z towards the eye from the target.
  Vec3 toEye(const Vec3& world) const;
  QPointF project(const Vec3& world) const;

private:
  Eigen::Matrix3d axes() const;
};

} // namespace hinge
