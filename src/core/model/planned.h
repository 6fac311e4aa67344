// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/work_record.h"
#include "core/model/snapshot.h"

namespace hinge {

/// A card with the plan of the work on it. Immutable.
struct PlannedWork {
  std::shared_ptr<const Snapshot> snapshot;
  std::shared_ptr<const Motion> motion;
  std::shared_ptr<const Stacking> stack;
  WorkPlan plan;
  const Design& design() const { return snapshot->design(); }
  const Assembly& assembly() const { return motion->assembly(); }
};

/// Plans the work with all that has to be worked out for it. Null after a stop request, and when
/// the card cannot be put together. Hands take the maker's own times where those are known.
std::shared_ptr<const PlannedWork> planWork(std::shared_ptr<const Snapshot> snapshot,
                                            const MakingWays& ways, const OwnTimes& own = {},
                                            std::stop_token stop = {});

} // namespace hinge
