// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/document.h"
#include <QTreeWidget>

namespace hinge {

/// What stands on what, over the stage: choosing a row selects the structure.
class StandingTree : public QTreeWidget {
  Q_OBJECT
public:
  StandingTree(Document* document, QWidget* parent);
  /// As high as its rows, but never higher than that.
  void layOut(int highest_px);

protected:
  /// None, so that the chosen row is one quiet bar.
  void drawBranches(QPainter*, const QRect&, const QModelIndex&) const override {}

private:
  void refill();

  Document* m_document;
  int m_highest_px = 0;
};

} // namespace hinge
