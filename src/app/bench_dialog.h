// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/work_dialog.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/production/bench.h"
#endif
#include <QComboBox>
#include <QFormLayout>
#include <QLineEdit>
#include <map>

namespace hinge {

/// The maker's tools and habits at the cutting table, kept for all cards.
class BenchDialog : public WorkDialog {
  Q_OBJECT
public:
  BenchDialog(Document* document, const Bench& bench, QWidget* parent = nullptr);

signals:
  void benchChanged();

private:
  void addRow(QFormLayout* form, const BenchRow& row);
  void take();

  Bench m_bench;
  std::map<std::string, QLineEdit*> m_numbers;
  std::map<std::string, QComboBox*> m_schools;
};

} // namespace hinge
