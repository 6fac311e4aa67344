// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

/// Rings of paper take up so much (mm) at their folds before the card stays open.
constexpr double kTakenUp_mm = 0.5;
/// No hand glues more exactly, and farther off everybody sees it.
constexpr double kLeastRoom_mm = 0.25, kMostRoom_mm = 2;

/// How far (mm) a tab may be glued off its place, along a direction (unit, in the flat frame of its
/// host's piece), before the card no longer shuts. When what comes after is `takenUp` by the page
/// that is shut on it, until the structure would stand out of the shut card; otherwise until the
/// rings through it gape by more than paper takes up, worked out from the shut state with the tab a
/// millimetre off. Within kLeastRoom_mm and kMostRoom_mm. Cost: a trace, unless it is taken up.
double placingRoom_mm(const Motion& motion, JointIndex glue, const Vec2& along, bool takenUp);

} // namespace hinge
