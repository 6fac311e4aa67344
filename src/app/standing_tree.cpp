// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/standing_tree.h"
#include "app/saying.h"
#include "core/structures/names.h"
#include <map>

namespace hinge {

StandingTree::StandingTree(Document* document, QWidget* parent)
    : QTreeWidget(parent), m_document(document) {
  setObjectName(QStringLiteral("standing"));
  setAccessibleName(tr("What stands on what"));
  setHeaderHidden(true);
  setIndentation(14);
  setRootIsDecorated(false);
  setItemsExpandable(false);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setFrameShape(QFrame::NoFrame);
  connect(document, &Document::designChanged, this, &StandingTree::refill);
  connect(document, &Document::selectionChanged, this, &StandingTree::refill);
  connect(this, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
    if (!item) return;
    m_document->select(structureIdFromText(item->data(0, Qt::UserRole).toString().toStdString()));
  });
  refill();
}

void StandingTree::refill() {
  const QSignalBlocker blocker(this);
  clear();
  const Design& design = m_document->design();
  auto* card = new QTreeWidgetItem(this, {tr("Card")});
  std::map<int, QTreeWidgetItem*> items;
  for (const StructureItem& item : design.structures) {
    const auto owner = ownerOfKey(item.seat);
    QTreeWidgetItem* on = owner && items.contains(owner->value) ? items[owner->value] : card;
    const QString name = said(nameOf(design, item.id));
    auto* entry = new QTreeWidgetItem(on, {name});
    entry->setData(0, Qt::UserRole, QString::fromStdString(item.id.text()));
    entry->setToolTip(0, tr("%1, on %2").arg(name, QString::fromStdString(item.seat)));
    items[item.id.value] = entry;
  }
  expandAll();
  QTreeWidgetItem* current = card;
  if (const auto id = m_document->selection(); id && items.contains(id->value))
    current = items[id->value];
  setCurrentItem(current);
  layOut(m_highest_px);
}

void StandingTree::layOut(int highest_px) {
  constexpr int kWidth = 190, kRow = 23, kMargins = 10;
  m_highest_px = highest_px;
  const int rows = 1 + static_cast<int>(m_document->design().structures.size());
  doItemsLayout(); // row heights are older than the font of the style
  resize(kWidth, std::min(highest_px, kMargins + rows * kRow));
}

} // namespace hinge
