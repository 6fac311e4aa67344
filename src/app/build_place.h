// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "app/bench_view.h"
#include "app/findings_panel.h"
#include "app/sizes_panel.h"
#include "app/stage_view.h"

namespace hinge {

/// Where the card is built: the stage, and beside it the flat piece, its sizes and the verdict,
/// which point at one another.
class BuildPlace : public QWidget {
  Q_OBJECT
public:
  BuildPlace(Document* document, Analyst* analyst, QWidget* parent = nullptr);
  StageView& stage() { return *m_stage; }
  BenchView& bench() { return *m_bench; }
  SizesPanel& sizes() { return *m_sizes; }
  FindingsPanel& findings() { return *m_findings; }

signals:
  void refused(const QString& why);
  void notice(const QString& text);
  void seatChosen(const QString& seat, const QPoint& where);

private:
  void connectViews();
  /// Lets a point that a joint needs be clicked on the stage, with the dialog out of the way.
  void pointFor(JointsDialog* dialog, std::size_t index, bool there);

  StageView* m_stage;
  BenchView* m_bench;
  SizesPanel* m_sizes;
  FindingsPanel* m_findings;
};

} // namespace hinge
