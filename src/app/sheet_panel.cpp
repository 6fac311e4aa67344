// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/sheet_panel.h"
#include "app/saying.h"
#include "core/structures/names.h"
#include <QHBoxLayout>
#include <QVBoxLayout>

namespace hinge {

SheetPanel::SheetPanel(Document* document, StageView* stage, QWidget* parent)
    : QWidget(parent), m_document(document), m_hand(new SheetHand(document, this)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 6, 0, 0);
  column->setSpacing(0);
  auto* head = new QHBoxLayout;
  head->setContentsMargins(16, 2, 14, 0);
  head->setSpacing(12);
  m_name = new QLabel(this);
  m_name->setObjectName(QStringLiteral("heading"));
  m_size = new QLabel(this);
  m_size->setObjectName(QStringLiteral("soft"));
  m_next = new QToolButton(this);
  m_next->setText(QStringLiteral("›"));
  m_next->setAccessibleName(tr("The next sheet of the base"));
  m_next->setToolTip(m_next->accessibleName());
  head->addWidget(m_name);
  head->addWidget(m_size);
  head->addStretch();
  head->addWidget(m_next);
  column->addLayout(head);
  m_view = new SheetView(document, m_hand, this);
  m_joints = new JointHand(document, m_hand, m_view, stage, this);
  m_folds = new FoldHand(document, m_hand, stage, this);
  m_bar = new HandBar(m_hand, m_view, m_joints, m_folds, stage, this);
  column->addWidget(m_bar);
  column->addWidget(m_view, 1);
  connect(m_hand, &SheetHand::refused, this, &SheetPanel::refused);
  connect(m_view, &SheetView::refused, this, &SheetPanel::refused);
  connect(m_joints, &JointHand::refused, this, &SheetPanel::refused);
  connect(m_hand, &SheetHand::changed, this, &SheetPanel::refresh);
  connect(m_next, &QToolButton::clicked, this, [this] {
    const std::size_t now = m_hand->target() ? m_hand->target()->sheet : 0;
    m_hand->turnTo((now + 1) % std::max<std::size_t>(1, m_hand->sheetCount()));
  });
  refresh();
}

void SheetPanel::refresh() {
  const auto target = m_hand->target();
  if (!target) return;
  const Design& design = m_document->design();
  const LengthUnit unit = design.settings.unit;
  const Vec2 size = boundsOf(m_hand->sheet().work.outline).size();
  QString name =
      target->piece ? said(nameOf(design, *target->piece)) : said(Text("sheet", target->sheet + 1));
  if (!name.isEmpty()) name[0] = name[0].toUpper();
  m_name->setText(name);
  m_size->setText(tr("flat, %1 × %2")
                      .arg(QString::fromStdString(formatLength(size.x(), unit, false)),
                           QString::fromStdString(formatLength(size.y(), unit))));
  m_next->setVisible(m_hand->sheetCount() > 1);
  emit pieceTurnedTo(m_view->piece());
}

} // namespace hinge
