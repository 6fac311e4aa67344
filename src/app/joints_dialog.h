// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/piece_editor.h"
#include <QDialog>
#include <QGridLayout>
#include <QVBoxLayout>
#include <functional>

namespace hinge {

/// What a free piece is joined to: a line for every joint, in words, with its places in fields.
/// Every change is one undoable step of the document and is seen at once on the stage behind.
class JointsDialog : public QDialog {
  Q_OBJECT
public:
  JointsDialog(Document* document, StructureId piece, QWidget* parent = nullptr);

  /// Takes a point of the paper for a joint: of the piece itself (there: false), or of a face of
  /// something else.
  void takePoint(std::size_t index, bool there, const std::string& face, const Vec2& at);
  StructureId piece() const { return m_piece; }

signals:
  /// The user wants to point at the place on the stage.
  void pointWanted(std::size_t index, bool there);
  void refused(const QString& why);

private:
  void rebuild();
  QWidget* lineFor(std::size_t index);
  void addChoices(QGridLayout* grid, std::size_t index, const PieceJoint& joint);
  void addPointButton(QGridLayout* grid, std::size_t index, bool there);
  void edit(std::size_t index, const std::function<void(PieceJoint&)>& how, const QString& what);
  const PieceWork* work() const { return m_editor->committed(); }

  Document* m_document;
  StructureId m_piece;
  PieceEditor* m_editor;
  QVBoxLayout* m_lines;
  QWidget* m_page = nullptr;
};

} // namespace hinge
