// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "app/cut_planner.h"
#include "app/document.h"
#include "app/piece_ruler.h"
#include "app/sheets_view.h"
#include "core/checks/analysis.h"
#include "core/production/score_table.h"
#endif
#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QSpinBox>
#include <QTabWidget>
#include <QTableWidget>

namespace hinge {

/// What is cut: the sheets, laid out for hands or for a machine; every piece with the numbers that
/// are set to make it; the cuts in their order; the files. A piece, its numbers, its place on the
/// sheets and its structure on the card are one choice.
class CutPlace : public QWidget {
  Q_OBJECT
public:
  CutPlace(Document* document, QWidget* parent = nullptr);
  void showOrder(const Analysis& analysis); ///< in which the pieces are put together
  bool exportTo(const QString& format, const QString& path); ///< also used by tests and the menu
  void copyTables();                                         ///< to the clipboard, with columns
  SheetsView& sheets() { return *m_sheets; }
  const CutPlanner& planner() const { return *m_planner; }

signals:
  void refused(const QString& why);
  void notice(const QString& text);

protected:
  void showEvent(QShowEvent*) override;

private:
  QWidget* makeSheetSide();
  QWidget* makeNumbers();
  QWidget* makeCuts();
  QWidget* makeTogether();
  QLayout* makeButtons();
  void refill();
  void fillPieces();
  void layOutAgain();
  void showPlan();
  void showCuts();
  void choosePiece(int row); ///< of the piece list
  void choosePart(std::size_t part);
  void followSelection();
  void ask(const QString& format);
  Result<void> writeModel(const Snapshot& snapshot, const QString& path);

  Document* m_document;
  CutPlanner* m_planner;
  SheetsView* m_sheets;
  QPushButton *m_byHand, *m_byMachine;
  QSpinBox* m_cards;
  QLabel* m_summary;
  QTabWidget* m_tabs;
  QTableWidget *m_pieces, *m_numbers;
  PieceRuler* m_ruler;
  QLabel* m_says;
  QListWidget *m_cuts, *m_order;
  std::shared_ptr<const Motion> m_orderOf; ///< the motion whose order is shown
  QCheckBox* m_slice;
  std::vector<PieceTable> m_tables;
  std::vector<MatLine> m_mats; ///< rows of the piece list after the tables
  Bench m_bench;
  bool m_stale = true; ///< the plan is not of the present card
};

} // namespace hinge
