// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

/// The pose with what a hand moves moved, to a share (0 as it rests, 1 as far as it goes) of its
/// way; all else stays.
Pose lifted(const Assembly& assembly, const Pose& pose, const Lift& lift, double share);

/// Where paper lies that another panel carries as it is: 0 in one sheet with that, 2 a page of it
/// folded over, 1 what lies between the two.
int packedLayer(const Assembly& assembly, const Carried& carried);

/// The convex parts of a panel in the world.
std::vector<std::vector<Vec3>> platesOf(const Assembly& assembly, PanelIndex panel,
                                        const Pose& pose);

} // namespace hinge
