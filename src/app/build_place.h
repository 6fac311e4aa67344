// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/bench_view.h"
#include "app/findings_panel.h"
#include "app/sheet_panel.h"
#include "app/sizes_panel.h"
#include "app/stage_view.h"
#include <QStackedWidget>

namespace hinge {

/// Where the card is built: the stage, and beside it the flat piece, its sizes and the verdict,
/// which point at one another. What its maker works himself, a free piece or a sheet of the base,
/// lies there under the hand, larger.
class BuildPlace : public QWidget {
  Q_OBJECT
public:
  BuildPlace(Document* document, Analyst* analyst, QWidget* parent = nullptr);
  StageView& stage() { return *m_stage; }
  BenchView& bench() { return *m_bench; }
  SheetPanel& sheet() { return *m_sheet; }
  SizesPanel& sizes() { return *m_sizes; }
  FindingsPanel& findings() { return *m_findings; }
  /// Puts a plain sheet, joined to nothing yet, under the hand.
  void cutNewSheet();
  /// Makes the base of the card a sheet with scores, which changes nothing but that it can be
  /// worked on.
  void takeBaseUnderHand();
  QToolButton& takeButton() { return *m_take; }

signals:
  void refused(const QString& why);
  void notice(const QString& text);
  void seatChosen(const QString& seat, const QPoint& where);

private:
  void connectViews();
  void layOut(); ///< gives the sheet its room, or takes it back

  Document* m_document;
  StageView* m_stage;
  QStackedWidget* m_flat;
  BenchView* m_bench;
  SheetPanel* m_sheet;
  SizesPanel* m_sizes;
  FindingsPanel* m_findings;
  QWidget* m_side;
  QToolButton* m_take;
};

} // namespace hinge
