// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/newest_work.h"
#include "core/design/design.h"
#include <QDialog>
#include <QScrollArea>
#include <vector>

namespace hinge {

/// The designs that come with the program, by their titles. Damaged ones would be left out; a test
/// sees that none is.
std::vector<Design> startingDesigns();

/// Where a new card begins: empty, or as a copy of one of the starting designs, each moving under
/// the pointer.
class NewPlace : public QDialog {
  Q_OBJECT
public:
  explicit NewPlace(QWidget* parent);

signals:
  void emptyChosen();
  void designChosen(const Design& design);

private:
  void layOut(const std::vector<Design>& designs);
  QScrollArea* m_scroll;
  NewestWork m_loading;
};

} // namespace hinge
