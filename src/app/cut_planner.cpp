// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/cut_planner.h"
#include "app/background.h"
#include <QThreadPool>

namespace hinge {
namespace {

/// Progress is told in so many steps: a painted number each is enough.
constexpr std::size_t kTold = 25;

} // namespace

CutPlanner::~CutPlanner() {
  m_stop.request_stop();
  // Workers post to this object; none may be left when it goes.
  backgroundPool().waitForDone();
}

void CutPlanner::cancel() {
  m_stop.request_stop();
  ++m_request;
  m_busy = false;
  emit changed();
}

void CutPlanner::request(std::shared_ptr<const Snapshot> snapshot, const LayoutOptions& options,
                         int cards) {
  m_stop.request_stop();
  m_stop = std::stop_source();
  m_busy = true, m_done = m_all = 0;
  const int request = ++m_request;
  runInBackground([this, snapshot, options, cards, stop = m_stop.get_token(), request] {
    const auto pieces = snapshot->cutPieces();
    const auto dressed = snapshot->dressed(stop);
    std::shared_ptr<const CutPlan> plan;
    if (pieces && dressed && !stop.stop_requested()) {
      const Design& design = snapshot->design();
      const auto told = [&](std::size_t done, std::size_t all) {
        if (done % std::max<std::size_t>(1, all / kTold) != 0) return;
        QMetaObject::invokeMethod(
            this,
            [this, request, done, all] {
              if (request != m_request) return;
              m_done = static_cast<int>(done), m_all = static_cast<int>(all);
              emit changed();
            },
            Qt::QueuedConnection);
      };
      plan = std::make_shared<const CutPlan>(
          layOutCards(design, *pieces, matList(design, *dressed), cards, options, stop, told));
    }
    if (stop.stop_requested()) return;
    QMetaObject::invokeMethod(
        this, [this, request, plan] { receive(request, plan); }, Qt::QueuedConnection);
  });
  emit changed();
}

void CutPlanner::receive(int request, std::shared_ptr<const CutPlan> plan) {
  if (request != m_request) return;
  m_plan = std::move(plan), m_busy = false;
  emit changed();
}

} // namespace hinge
