// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/newest_work.h"
#include "app/work_dialog.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/checks/rounding_search.h"
#endif
#include <QComboBox>
#include <QTableWidget>

namespace hinge {

/// Every size of the card on what its maker can set: which sizes change, from what to what, and
/// what the checks say of the card then. Worked out on another thread; a tick holds a size as it
/// is.
class RoundDialog : public WorkDialog {
  Q_OBJECT
public:
  explicit RoundDialog(Document* document, QWidget* parent = nullptr);
  bool busy() const { return m_working.running(); }

signals:
  void worked(); ///< an answer is there

private:
  void makeSteps();
  void makeTable();
  void work();
  void receive(const Result<JudgedRounding>& answer);
  void fill(const Rounding& rounding);
  void take();

  std::shared_ptr<const Snapshot> m_snapshot; ///< of the card that is rounded
  std::set<std::string> m_held;
  std::optional<JudgedRounding> m_answer;
  QComboBox* m_step;
  QTableWidget* m_table;
  NewestWork m_working;
};

} // namespace hinge
