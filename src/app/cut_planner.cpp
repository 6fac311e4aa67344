// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/cut_planner.h"

namespace hinge {

void CutPlanner::cancel() {
  m_working.stop();
  emit changed();
}

void CutPlanner::request(std::shared_ptr<const Snapshot> snapshot, const LayoutOptions& options,
                         int cards) {
  m_done = m_all = 0;
  m_working.start(
      [this, snapshot, options, cards](std::stop_token stop, const NewestWork::Tell& tell) {
        const auto pieces = snapshot->cutPieces();
        const auto dressed = snapshot->dressed(stop);
        std::shared_ptr<const CutPlan> plan;
        if (!pieces || !dressed || stop.stop_requested()) return plan;
        const Design& design = snapshot->design();
        const auto told = toldNowAndThen(tell, [this](std::size_t done, std::size_t all) {
          m_done = static_cast<int>(done), m_all = static_cast<int>(all);
          emit changed();
        });
        plan = std::make_shared<const CutPlan>(
            layOutCards(design, *pieces, matList(design, *dressed), cards, options, stop, told));
        return plan;
      },
      [this](std::shared_ptr<const CutPlan> plan) {
        m_plan = std::move(plan);
        emit changed();
      });
  emit changed();
}

} // namespace hinge
