// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/document.h"
#include "core/edits/proportion.h"
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>

namespace hinge {

/// The card's sheet, or one free piece, at another length: which lengths are held and which give,
/// and what becomes of each.
class FitDialog : public QDialog {
  Q_OBJECT
public:
  FitDialog(Document* document, std::optional<StructureId> piece, QWidget* parent = nullptr);

signals:
  void notice(const QString& text);

private:
  void work();
  void take();
  std::set<std::string> held() const;

  Document* m_document;
  std::optional<StructureId> m_piece;
  std::vector<LengthRow> m_rows;
  std::optional<Fitted> m_fitted;
  QLineEdit* m_length;
  QTableWidget* m_table;
  QLabel* m_says;
  QPushButton* m_take;
};

} // namespace hinge
