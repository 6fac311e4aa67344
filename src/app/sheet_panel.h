// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/hand_bar.h"

namespace hinge {

/// The sheet under the hand with all that belongs to it: its name and size, the words that say what
/// the hand does, and the hands that reach over to the stage.
class SheetPanel : public QWidget {
  Q_OBJECT
public:
  SheetPanel(Document* document, StageView* stage, QWidget* parent = nullptr);
  SheetHand& hand() { return *m_hand; }
  SheetView& view() { return *m_view; }
  HandBar& bar() { return *m_bar; }
  JointHand& joints() { return *m_joints; }
  FoldHand& folds() { return *m_folds; }

signals:
  void refused(const QString& why);
  void pieceTurnedTo(PieceIndex piece);

private:
  void refresh();

  Document* m_document;
  SheetHand* m_hand;
  SheetView* m_view;
  JointHand* m_joints;
  FoldHand* m_folds;
  HandBar* m_bar;
  QLabel *m_name, *m_size;
  QToolButton* m_next;
};

} // namespace hinge
