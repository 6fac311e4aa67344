// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/planned.h"

namespace hinge {

std::shared_ptr<const PlannedWork> planWork(std::shared_ptr<const Snapshot> snapshot,
                                            const MakingWays& ways, const OwnTimes& own,
                                            std::stop_token stop) {
  auto work = std::make_shared<PlannedWork>();
  work->motion = snapshot->motion(stop);
  const auto order = snapshot->order(stop);
  const auto dressed = snapshot->dressed(stop);
  const auto seen = snapshot->seen(stop);
  work->stack = snapshot->stack(stop);
  if (!work->motion || !order || !dressed || !seen || !work->stack) return nullptr;
  work->plan = workPlan(
      {snapshot->design(), *work->motion, *order, *snapshot->faces(), *dressed, *seen}, ways);
  timeByOwn(work->plan, own);
  work->snapshot = std::move(snapshot);
  return work;
}

} // namespace hinge
