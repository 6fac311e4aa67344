// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/document.h"
#include "core/checks/analysis.h"
#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QTableWidget>

namespace hinge {

/// What is cut: the sheets as they will be printed, the list of pieces with sizes and score
/// positions, and the files.
class CutPlace : public QWidget {
  Q_OBJECT
public:
  CutPlace(Document* document, QWidget* parent = nullptr);
  void showOrder(const Analysis& analysis); ///< in which the pieces are put together
  bool exportTo(const QString& format, const QString& path); ///< also used by tests and the menu

signals:
  void refused(const QString& why);
  void notice(const QString& text);

private:
  void makeTable();
  void showMats(const Snapshot& snapshot);
  QHBoxLayout* makeButtons();
  void refill();
  void ask(const QString& format);
  Document* m_document;
  QWidget* m_sheets;
  QTableWidget* m_pieces;
  QLabel* m_summary;
  QListWidget* m_order;
  std::shared_ptr<const Motion> m_orderOf; ///< the motion whose order is shown
  QCheckBox* m_slice;
  bool m_matsShown = false;
};

} // namespace hinge
