// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/build_place.h"
#include "app/joints_dialog.h"
#include <QFrame>
#include <QPointer>
#include <QVBoxLayout>

namespace hinge {

BuildPlace::BuildPlace(Document* document, Analyst* analyst, QWidget* parent) : QWidget(parent) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  m_stage = new StageView(document, analyst, this);
  row->addWidget(m_stage, 1);
  auto* side = new QWidget(this);
  side->setFixedWidth(468);
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  m_bench = new BenchView(document, side);
  column->addWidget(m_bench, 4);
  const auto hairline = [&] {
    auto* line = new QFrame(side);
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
  m_sizes = new SizesPanel(document, side);
  padded(m_sizes, 0);
  hairline();
  m_findings = new FindingsPanel(document, analyst, side);
  m_findings->setMinimumHeight(120);
  padded(m_findings, 4);
  row->addWidget(side);
  connectViews();
}

void BuildPlace::connectViews() {
  connect(m_stage, &StageView::panelHovered, m_bench, &BenchView::setHoveredPanel);
  connect(m_bench, &BenchView::panelHovered, m_stage, &StageView::setHoveredPanel);
  connect(m_bench, &BenchView::pieceTurnedTo, m_stage, &StageView::setLettered);
  m_stage->setLettered(m_bench->piece());
  connect(m_stage, &StageView::refused, this, &BuildPlace::refused);
  connect(m_bench, &BenchView::refused, this, &BuildPlace::refused);
  connect(m_sizes, &SizesPanel::refused, this, &BuildPlace::refused);
  connect(m_sizes, &SizesPanel::notice, this, &BuildPlace::notice);
  connect(&m_sizes->work(), &WorkPanel::jointsOpened, this, [this](JointsDialog* dialog) {
    connect(dialog, &JointsDialog::pointWanted, this,
            [this, dialog](std::size_t index, bool there) { pointFor(dialog, index, there); });
  });
  const auto showFolded = [this] {
    m_sizes->work().ruler().setPose(m_stage->assembly(), m_stage->pose());
  };
  connect(m_stage, &StageView::poseChanged, this, showFolded);
  showFolded();
  connect(m_findings, &FindingsPanel::refused, this, &BuildPlace::refused);
  connect(m_findings, &FindingsPanel::showRequested, m_stage, &StageView::showFinding);
  connect(m_stage, &StageView::findingChosen, m_stage, &StageView::showFinding);
  connect(m_stage, &StageView::seatChosen, this, &BuildPlace::seatChosen);
}

void BuildPlace::pointFor(JointsDialog* dialog, std::size_t index, bool there) {
  dialog->hide();
  const auto take = [open = QPointer<JointsDialog>(dialog), index,
                     there](const std::optional<PickedPoint>& picked) {
    if (!open) return;
    if (picked)
      open->takePoint(index, there, picked->face, there ? picked->onFace : picked->onPiece);
    open->show();
  };
  m_stage->pick(there ? tr("Click where it is joined. Esc ends.")
                      : tr("Click a point of the piece. Esc ends."),
                take);
}

} // namespace hinge
