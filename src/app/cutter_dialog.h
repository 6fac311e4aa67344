// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/cutter_runner.h"
#include "app/work_dialog.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/production/cut_plan.h"
#endif
#include <QCheckBox>
#include <QComboBox>
#include <QLineEdit>
#include <QProgressBar>

namespace hinge {

/// Sends one sheet of a plan to a cutting machine, or two squares to measure: where the machine is,
/// how far it has come, pause, going on after something went wrong. A job goes on when the dialog
/// is closed.
class CutterDialog : public WorkDialog {
  Q_OBJECT
public:
  CutterDialog(Document* document, CutterRunner* runner, std::shared_ptr<const CutPlan> plan,
               const Bench& bench, QWidget* parent = nullptr);

signals:
  void benchChanged();

private:
  void makeWhere();
  void makeSquares();
  void makeProgress();
  Result<CutterJob> job() const;
  void simulate();
  void describeJob();
  void send(bool goOn);
  void ended();
  void takeMeasured();
  void showState();

  std::shared_ptr<const CutPlan> m_plan;
  Bench m_bench;
  CutterRunner* m_runner;
  QComboBox *m_sheet, *m_device;
  QCheckBox* m_squares;
  std::array<QLineEdit*, 4> m_measured{};
  QWidget* m_measuredRow = nullptr;
  QPushButton *m_keep = nullptr, *m_pause = nullptr, *m_stop = nullptr, *m_goOn = nullptr,
              *m_simulate = nullptr;
  QProgressBar* m_bar;
};

} // namespace hinge
