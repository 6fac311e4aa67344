// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/build_place.h"
#include "app/saying.h"
#include "core/edits/sheet.h"
#include <QFrame>
#include <QVBoxLayout>

namespace hinge {
namespace {
constexpr int kSide_px = 468, kSheetSide_px = 640;
} // namespace

BuildPlace::BuildPlace(Document* document, Analyst* analyst, QWidget* parent)
    : QWidget(parent), m_document(document) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  m_stage = new StageView(document, analyst, this);
  row->addWidget(m_stage, 1);
  m_side = new QWidget(this);
  auto* column = new QVBoxLayout(m_side);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  m_flat = new QStackedWidget(m_side);
  m_bench = new BenchView(document, m_flat);
  m_sheet = new SheetPanel(document, m_stage, m_flat);
  m_flat->addWidget(m_bench);
  m_flat->addWidget(m_sheet);
  column->addWidget(m_flat, 8);
  m_take = new QToolButton(m_bench);
  m_take->setText(tr("Edit as a sheet"));
  m_take->setAccessibleName(m_take->text());
  m_take->setToolTip(tr("Makes the base a sheet that is scored, cut and joined by hand"));
  connect(m_take, &QToolButton::clicked, this, &BuildPlace::takeBaseUnderHand);
  const auto hairline = [&] {
    auto* line = new QFrame(m_side);
    line->setObjectName(QStringLiteral("hairline"));
    line->setFixedHeight(1);
    column->addWidget(line);
  };
  const auto padded = [&](QWidget* widget, int stretch) {
    auto* box = new QVBoxLayout;
    box->setContentsMargins(16, 12, 16, 12);
    box->addWidget(widget);
    column->addLayout(box, stretch);
  };
  hairline();
  m_sizes = new SizesPanel(document, m_side);
  padded(m_sizes, 0);
  hairline();
  m_findings = new FindingsPanel(document, analyst, m_side);
  m_findings->setMinimumHeight(120);
  padded(m_findings, 3);
  row->addWidget(m_side);
  connectViews();
  layOut();
}

void BuildPlace::connectViews() {
  connect(m_stage, &StageView::panelHovered, m_bench, &BenchView::setHoveredPanel);
  connect(m_bench, &BenchView::panelHovered, m_stage, &StageView::setHoveredPanel);
  connect(m_bench, &BenchView::pieceTurnedTo, m_stage, &StageView::setLettered);
  connect(m_stage, &StageView::panelHovered, &m_sheet->view(), &SheetView::setHoveredPanel);
  connect(&m_sheet->view(), &SheetView::panelHovered, m_stage, &StageView::setHoveredPanel);
  connect(m_sheet, &SheetPanel::pieceTurnedTo, m_stage, &StageView::setLettered);
  connect(m_sheet, &SheetPanel::refused, this, &BuildPlace::refused);
  connect(&m_sheet->hand(), &SheetHand::changed, this, &BuildPlace::layOut);
  m_stage->setLettered(m_bench->piece());
  connect(m_stage, &StageView::refused, this, &BuildPlace::refused);
  // Tools are taken up from the stage as well, while the sheet lies beside it.
  connect(m_stage, &StageView::toolKey, this, [this](int key) {
    if (m_sheet->isVisible()) m_sheet->bar().takeUpBy(key);
  });
  connect(m_bench, &BenchView::refused, this, &BuildPlace::refused);
  connect(m_sizes, &SizesPanel::refused, this, &BuildPlace::refused);
  connect(m_sizes, &SizesPanel::notice, this, &BuildPlace::notice);
  const auto showFolded = [this] {
    m_sizes->work().profile().setPose(m_stage->assembly(), m_stage->pose());
    m_bench->setLook(m_stage->scene().look(), m_stage->assembly());
  };
  connect(m_stage, &StageView::poseChanged, this, showFolded);
  showFolded();
  connect(m_findings, &FindingsPanel::refused, this, &BuildPlace::refused);
  connect(m_findings, &FindingsPanel::showRequested, m_stage, &StageView::showFinding);
  connect(m_stage, &StageView::findingChosen, m_stage, &StageView::showFinding);
  connect(m_stage, &StageView::seatChosen, this, &BuildPlace::seatChosen);
}

void BuildPlace::layOut() {
  const bool worked = m_sheet->hand().target().has_value();
  QWidget* shown = worked ? static_cast<QWidget*>(m_sheet) : m_bench;
  if (m_flat->currentWidget() != shown) m_flat->setCurrentWidget(shown);
  m_side->setFixedWidth(worked ? kSheetSide_px : kSide_px);
  m_take->setVisible(!worked && !m_document->selection());
  m_take->adjustSize();
  m_take->move(kSide_px - m_take->width() - 16, 40);
}

void BuildPlace::takeBaseUnderHand() {
  const Design& design = m_document->committed();
  const auto next = withBaseAsSheet(design);
  const auto done =
      next ? m_document->apply(*next, tr("edit the base as a sheet")) : Result<void>(next.error());
  if (!done) return void(emit refused(said(done.error(), design.settings.unit)));
  m_sheet->view().setFocus();
}

void BuildPlace::cutNewSheet() {
  const Design& design = m_document->committed();
  const LengthUnit unit = design.settings.unit;
  const auto added = newSheet(design);
  const auto done =
      added ? m_document->apply(added->design, tr("cut a new sheet")) : Result<void>(added.error());
  if (!done) return void(emit refused(said(done.error(), unit)));
  m_document->select(added->id);
  m_sheet->view().setFocus();
}

} // namespace hinge
