// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/newest_work.h"
#include "app/work_dialog.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/checks/analysis.h"
#include "core/production/spliced.h"
#endif
#include <QListWidget>

namespace hinge {

/// Where pieces that are longer than every sheet would be parted, which sheet would spare it, and
/// what the checks say of the card then. Worked out on another thread.
class SpliceDialog : public WorkDialog {
  Q_OBJECT
public:
  SpliceDialog(Document* document, double margin_mm, QWidget* parent = nullptr);
  bool busy() const { return m_working.running(); }

private:
  struct Answer {
    std::vector<SpliceProposal> proposals;
    std::optional<Analysis> then; ///< with all of them
  };
  void receive(const Result<Answer>& answer);
  void take();

  static Result<Answer> worked(const std::shared_ptr<const Snapshot>& snapshot, double margin_mm,
                               std::stop_token stop);
  std::optional<Answer> m_answer;
  QListWidget* m_list;
  NewestWork m_working;
};

} // namespace hinge
