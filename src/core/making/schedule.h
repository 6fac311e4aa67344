// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/work_plan.h"

namespace hinge {

/// Card by card, or what one tool does for all cards before the next tool is taken up.
enum class Batching { CardByCard, ByTool };

struct ScheduleWays {
  int copies = 1;
  Batching batching = Batching::ByTool;
  int clips = 6;            ///< and weights: so many joints can set at one time
  double toolChange_s = 20; ///< to put one tool away and take up another
  double breakAfter_s = 45 * 60, break_s = 5 * 60; ///< of hands without a pause, and how long it is
};

/// Something that hands do, from when to when (seconds from the beginning).
struct ScheduledWork {
  int copy = 0;         ///< of the card, from 0
  std::size_t step = 0; ///< of the plan
  double from_s = 0, to_s = 0;
  double free_s = 0; ///< when what waits afterwards has set
};

struct Schedule {
  std::vector<ScheduledWork> work;               ///< in time
  std::vector<std::pair<double, double>> breaks; ///< of the hands: from, to
  std::vector<double> ready_s;                   ///< per card
  double hands_s = 0;   ///< that hands are busy, tools changed and all: nothing is shorter
  double longest_s = 0; ///< what one card takes with all that must set: nothing is shorter either
  int toolChanges = 0;
  double end_s = 0; ///< of all work and setting
  /// How much longer it takes than could be hoped for at best.
  double ratio() const;
};

/// When each step of each card is done by one pair of hands. Setting runs by itself; a step waits
/// for its card's steps before it, and for what they left to set on the same pieces; a joint that
/// must set wants a clip. Of what can be done next the hands do what needs the tool they hold, then
/// what has most to come after it. Breaks lie in what waits anyway when that is long enough. Cost:
/// linear in cards times steps, times the cards that are under way.
Schedule scheduleOf(const WorkPlan& plan, const ScheduleWays& ways);

} // namespace hinge
