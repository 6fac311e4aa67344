// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/motion/motion.h"
#include <string>

namespace hinge {

/// Wavefront OBJ of one pose in mm, world frame: a group per structure, an object per panel,
/// corners counter-clockwise seen from the face. Fails when a structure does not reach the opening.
Result<std::string> poseToObj(const Motion& motion, double opening_deg);

} // namespace hinge
