// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/piece_editor.h"
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QTableWidget>
#include <QVBoxLayout>

namespace hinge {

/// The shape of a free piece in numbers: corners of its outline in order, and its lines (mountain,
/// valley, cut) from point to point. Slanted edges, notches and slits are made here. Every change
/// is one undoable step and is seen at once.
class ShapeDialog : public QDialog {
  Q_OBJECT
public:
  ShapeDialog(Document* document, StructureId piece, QWidget* parent = nullptr);

signals:
  void refused(const QString& why);

private:
  void addOutline(QVBoxLayout* column);
  void addLines(QVBoxLayout* column);
  const PieceWork* work() const { return m_editor->committed(); }
  void refill();
  void takeCorner(int row);
  void takeLine(int row);
  std::optional<double> lengthIn(const QTableWidget& table, int row, int column);
  QTableWidget* makeTable(const QStringList& headings, const QString& name);
  void addButtons(QLayout* column, QTableWidget* table, const QString& more,
                  const std::function<void(int)>& insert, const std::function<void(int)>& remove);

  Document* m_document;
  StructureId m_piece;
  PieceEditor* m_editor;
  QTableWidget *m_corners, *m_lines;
  bool m_filling = false;
};

} // namespace hinge
