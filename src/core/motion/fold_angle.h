// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/motion/motion.h"
#include <cmath>

namespace hinge {

/// The fold angle in a pose in which both panels are placed (rad): 0 flat, positive when the face
/// sides come together.
inline double foldAngleIn(const Pose& pose, const Fold& fold) {
  const Vec3 left = pose.panels[fold.left].linear().col(2),
             right = pose.panels[fold.right].linear().col(2),
             axis = pose.panels[fold.left].linear() * lift(fold.to - fold.from).normalized();
  return -std::atan2(left.cross(right).dot(axis), left.dot(right));
}

} // namespace hinge
