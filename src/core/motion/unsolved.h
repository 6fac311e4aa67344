// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

// Folds, slots, pins and slides that no ring solves for: what they join is placed without them, by
// the base or by other blocks. Nothing makes their sides meet but their maker's sizes.

/// All of them. Folds that drive the base are among them: two drives may contradict one another.
std::vector<PairIndex> unsolvedPairs(const Motion& motion);

/// By how much the two sides of a pair miss one another at a pose (mm), beside what it leaves free
/// and what its play takes up; nothing where one of them is not placed. `place` receives where that
/// is, in the world.
std::optional<double> gapOf(const Motion& motion, const Pair& pair, const Pose& pose,
                            Vec3* place = nullptr);

/// The panels that a pair joins, the one that was there first.
std::array<PanelIndex, 2> panelsOf(const Assembly& assembly, const Pair& pair);

} // namespace hinge
