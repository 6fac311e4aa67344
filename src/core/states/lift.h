// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

/// The pose with what a hand lifts turned about its fold, to a fold angle; all else stays.
Pose lifted(const Motion& motion, const Pose& pose, const Lift& lift, double angle_rad);

/// The convex parts of a panel in the world.
std::vector<std::vector<Vec3>> platesOf(const Assembly& assembly, PanelIndex panel,
                                        const Pose& pose);

} // namespace hinge
