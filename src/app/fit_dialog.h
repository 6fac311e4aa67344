// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/work_dialog.h"
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "core/edits/proportion.h"
#endif
#include <QLineEdit>
#include <QTableWidget>

namespace hinge {

/// The card's sheet, or one free piece, at another length: which lengths are held and which give,
/// and what becomes of each.
class FitDialog : public WorkDialog {
  Q_OBJECT
public:
  FitDialog(Document* document, std::optional<StructureId> piece, QWidget* parent = nullptr);

private:
  void makeTable();
  void work();
  void take();
  std::set<std::string> held() const;

  std::optional<StructureId> m_piece;
  std::vector<LengthRow> m_rows;
  std::optional<Fitted> m_fitted;
  QLineEdit* m_length;
  QTableWidget* m_table;
};

} // namespace hinge
