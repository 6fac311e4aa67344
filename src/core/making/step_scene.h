// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/partly_built.h"
#include "core/making/work_plan.h"
#include "core/states/stacking.h"

namespace hinge {

/// Glue, or the place where it comes to, on one side of a panel; in the flat frame of its piece.
struct GlueSpot {
  PanelIndex panel;
  bool onBack = false;
  std::vector<Region> where;
  bool lands = false; ///< no glue is put there: the tab comes there
};

/// What lies before the maker in one step, part of the way through it: where the paper is, what is
/// new, where glue goes, and how it moves. World frame; `bench` lays it on the table.
struct StepScene {
  Pose pose;        ///< nothing is placed but what lies there
  LayerOffsets off; ///< of what lies flat, for pictures
  Iso3 bench = Iso3::Identity();
  std::vector<PanelIndex> fresh; ///< what is put on, or worked at
  std::vector<PanelIndex> named; ///< have their letter besides those, and those with glue
  std::vector<GlueSpot> glue;
  std::vector<std::vector<Vec3>> ways;     ///< on the table: how paper moves, to where it comes to
  std::vector<std::pair<Vec3, Vec3>> ties; ///< on the table: bands and films, the fresh ones first
  std::size_t freshTies = 0;
  std::vector<Vec3> pins;  ///< on the table: where pins go through in this step
  double least_mm = 1e300; ///< the smaller side of the smallest place that gets glue
  bool shut = false;       ///< nearly: what matters is hidden, and a weight goes on it
  bool anything() const;
};

/// The scenes of a plan's steps. Each is worked out when it is asked for, some milliseconds each.
/// All of it comes from the motion by which the card is made; everything given must outlive it.
class StepScenes {
public:
  StepScenes(const WorkPlan& plan, const Motion& motion, const Stacking& shut,
             double foldClearance_mm);
  /// The step is shown as the card, or a part of it, as far as it is built; others are shown as
  /// flat pieces.
  bool builds(std::size_t step) const;
  /// `progress` from 0, before anything is done, to 1, when it is done.
  StepScene at(std::size_t step, double progress) const;

private:
  MadeJoints madeBefore(std::size_t step) const;

  const WorkPlan& m_plan;
  const Motion& m_motion;
  const Assembly& m_assembly;
  double m_clearance_mm;
  std::vector<int> m_rank; ///< of each panel in the stack of the shut card; empty: there is none
};

} // namespace hinge
