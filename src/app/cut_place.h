// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN // moc cannot read the concepts in the standard headers
#include "app/card_files.h"
#include "app/cut_planner.h"
#include "app/cutter_runner.h"
#include "app/document.h"
#include "app/numbers_panel.h"
#include "app/sheets_view.h"
#include "core/checks/analysis.h"
#endif
#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QSpinBox>
#include <QTabWidget>
#include <QThreadPool>

namespace hinge {

/// What is cut: the sheets, laid out for hands or for a machine; every piece with the numbers that
/// are set to make it; the cuts in their order; the files. A piece, its numbers, its place on the
/// sheets and its structure on the card are one choice.
class CutPlace : public QWidget {
  Q_OBJECT
public:
  CutPlace(Document* document, QWidget* parent = nullptr);
  ~CutPlace() override;
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
  QWidget* makeCuts();
  QWidget* makeTogether();
  QLayout* makeButtons();
  QMenu* makeFilesMenu();
  void refill();
  void layOutAgain();
  void showPlan();
  void showCuts();
  void choosePart(std::size_t part);
  void showChosen();
  CardFiles files() const;
  void askPdf();
  void askBench();
  void askCutter();
  void askSplices();
  void ask(const QString& format, const CardFiles& files);
  bool mayWrite(const QString& path);
  void tellWritten(const Result<void>& written, const QString& path, int request);

  Document* m_document;
  CutPlanner* m_planner;
  CutterRunner* m_runner;
  SheetsView* m_sheets;
  QPushButton *m_byHand, *m_byMachine, *m_send = nullptr, *m_part = nullptr;
  QSpinBox* m_cards;
  QLabel* m_summary;
  QTabWidget* m_tabs;
  NumbersPanel* m_numbers;
  QListWidget *m_cuts, *m_order;
  std::shared_ptr<const Motion> m_orderOf; ///< the motion whose order is shown
  QCheckBox* m_slice;
  int m_writing = 0;     ///< files that were asked for
  QThreadPool m_writers; ///< of their own: the program does not end before they have
  Bench m_bench;
  bool m_stale = true; ///< the plan is not of the present card
};

} // namespace hinge
