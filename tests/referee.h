// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN
#include "core/checks/analysis.h"
#endif

namespace hinge::test {

/// What the referee finds wrong with a card, by the class of the trouble.
struct Complaint {
  enum class Kind { Torn, Order, Crossing, Thickness, Holding, FoldWay, DeclaredUse };
  Kind kind;
  std::string what;  ///< keys of the panels or joints
  double amount = 0; ///< mm, mm2 of glue or degrees
  double at_deg = 0; ///< opening at which it is worst
};

struct RefereeOptions {
  double step_deg = 1;   ///< between the openings that are looked at
  double gap_mm = 0.3;   ///< what the two sides of a joint may miss one another by
  double depth_mm = 0.2; ///< shallower crossings are touching paper
};

/// A second opinion on a card, apart from what the product works out: from the pieces as they are
/// cut, their joints, and where the motion puts the panels, with geometry of its own (plain loops
/// over all pairs at many openings; areas by GEOS). At each opening both sides of every joint and
/// fold are compared; all pairs of panels, those of one body included, are looked at for crossings
/// and for an order of those that lie on one another; the openings are close where a drive is
/// short; glue is the area of paper that has paper under it; folds are compared with their marks.
/// Slow: squares of the panels, times some two hundred openings.
std::vector<Complaint> complaintsOf(const Analysis& card, const RefereeOptions& options = {});

/// One complaint a line, for a person.
std::string told(const std::vector<Complaint>& complaints);

} // namespace hinge::test
