// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/newest_work.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/model/snapshot.h"
#include "core/production/cut_plan.h"
#endif
#include <QObject>

namespace hinge {

/// Lays a card's parts out on sheets on another thread; a new request ends the one before, and what
/// comes late is dropped.
class CutPlanner : public QObject {
  Q_OBJECT
public:
  explicit CutPlanner(QObject* parent = nullptr) : QObject(parent), m_working(this) {}

  void request(std::shared_ptr<const Snapshot> snapshot, const LayoutOptions& options, int cards);
  void cancel();
  bool busy() const { return m_working.running(); }
  int done() const { return m_done; }
  int all() const { return m_all; }
  /// The newest plan; of what was asked for last only when busy() is false.
  std::shared_ptr<const CutPlan> plan() const { return m_plan; }

signals:
  void changed(); ///< begun, further on, there, or cancelled

private:
  std::shared_ptr<const CutPlan> m_plan;
  int m_done = 0, m_all = 0;
  NewestWork m_working;
};

} // namespace hinge
