// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"
#include <optional>

namespace hinge {

/// How far apart the ends of a band or film are while the card opens.
struct TieTravel {
  bool known = false; ///< both ends are placed somewhere
  double shut_mm = 0, shown_mm = 0, shown_rad = 0;
  double shortest_mm = 0, longest_mm = 0, longest_rad = 0;
  double tautFrom_rad = 0, tautTo_rad = 0; ///< openings between which it is farther than its length
};

/// What stands in the straight way between the ends of a band or film.
struct TieRound {
  double needed_mm = 0; ///< the way round it
  PanelIndex over;      ///< the panel that costs most; none: the straight way is free
};

/// The way over all paper that the straight line between the ends meets, in the upright plane
/// through both: a strip with some width does not slip off sideways. Nothing where an end is not
/// placed.
std::optional<TieRound> wayRound(const Tie& tie, const Motion& motion, const Pose& pose);

/// Read at every degree of the opening and halved down to 0.01 degrees where the length is passed.
TieTravel travelOf(const Tie& tie, const Motion& motion, double shown_rad);

} // namespace hinge
