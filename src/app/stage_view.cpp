// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stage_view.h"
#include "app/look.h"
#include "core/structures/registry.h"
#include <QHeaderView>
#include <QMouseEvent>
#include <cmath>

namespace hinge {
namespace {

/// The tree over the stage: no branch decorations, so that the chosen row is one quiet bar.
class StandingTree : public QTreeWidget {
public:
  using QTreeWidget::QTreeWidget;

protected:
  void drawBranches(QPainter*, const QRect&, const QModelIndex&) const override {}
};

} // namespace

StageView::StageView(Document* document, Analyst* analyst, QWidget* parent)
    : QWidget(parent), m_document(document), m_analyst(analyst) {
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("Stage"));
  setAccessibleDescription(tr("The moving structure. Click a panel to select its structure; drag "
                              "to look from another side."));
  setMinimumSize(420, 360);
  m_fan = new Fan(this);
  m_tags = new SizeTags(this, document);
  m_standing = new StandingTree(this);
  m_standing->setObjectName(QStringLiteral("standing"));
  m_standing->setAccessibleName(tr("What stands on what"));
  m_standing->setHeaderHidden(true);
  m_standing->setIndentation(14);
  m_standing->setRootIsDecorated(false);
  m_standing->setItemsExpandable(false);
  m_standing->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  m_standing->setFrameShape(QFrame::NoFrame);
  m_add = new QToolButton(this);
  m_add->setCheckable(true);
  m_add->setText(tr("+  Add a structure"));
  m_add->setAccessibleName(tr("Add a structure"));
  m_add->setToolTip(tr("Shows the folds on which something can stand (A)"));
  connect(m_add, &QToolButton::toggled, this, &StageView::setAdding);
  connect(m_fan, &QAbstractSlider::valueChanged, this, [this] { refresh(); });
  connect(m_fan, &Fan::findingChosen, this, &StageView::findingChosen);
  connect(m_tags, &SizeTags::refused, this, &StageView::refused);
  connect(m_tags, &SizeTags::repaint, this, qOverload<>(&QWidget::update));
  connect(document, &Document::designChanged, this, [this] {
    m_shownFinding = -1;
    refreshStanding();
    refresh();
  });
  connect(document, &Document::selectionChanged, this, [this] {
    refreshStanding();
    layOutTags();
    update();
  });
  connect(analyst, &Analyst::changed, this, [this] {
    m_fan->setAnalysis(m_analyst->current());
    refresh();
  });
  connect(m_standing, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
    if (!item) return;
    m_document->select(structureIdFromText(item->data(0, Qt::UserRole).toString().toStdString()));
  });
  refreshStanding();
  refresh();
}

QRectF StageView::stageArea() const {
  return QRectF(24, 26, width() - 48, height() - 26 - m_fan->sizeHint().height() + 6);
}

Camera StageView::camera() const {
  Camera camera = cameraFor(m_document->design().card, stageArea(), *m_assembly);
  camera.turn_rad += m_turn;
  camera.height_rad = std::clamp(camera.height_rad + m_height, -0.3, 1.5);
  camera.scale_px *= m_zoom;
  return camera;
}

void StageView::refresh() {
  const auto analysis = m_analyst->current();
  const double opening = drawableOpening(m_fan->opening_rad());
  if (m_shown != m_document->snapshot()) {
    const auto assembled = m_document->snapshot()->assembly();
    if (!assembled) return; // apply() and preview() let only designs through that assemble
    m_shown = m_document->snapshot();
    m_assembly = *assembled;
    m_fan->setCard(m_shown->design().card);
  }
  // The traced motion when it belongs to what is shown, a direct solution while it is being worked
  // out.
  if (analysis && analysis->snapshot == m_shown)
    m_pose = analysis->motion->poseAt(opening);
  else
    m_pose = Motion::quickPose(*m_assembly, opening, m_analyst->lastMotion());
  emit poseChanged();
  layOutTags();
  update();
}

void StageView::layOutTags() {
  if (!m_assembly || m_adding) {
    m_tags->clear();
    return;
  }
  m_tags->update(
      *m_assembly, [this](PanelIndex p, const Vec2& q) { return screenOf(p, q); },
      QRectF(rect()).adjusted(6, 6, -6, -m_fan->height() + 30));
}

void StageView::refreshStanding() {
  const QSignalBlocker blocker(m_standing);
  m_standing->clear();
  const Design& design = m_document->design();
  auto* card = new QTreeWidgetItem(m_standing, {tr("Card")});
  std::map<int, QTreeWidgetItem*> items;
  for (const StructureItem& item : design.structures) {
    const auto owner = ownerOfKey(item.seat);
    QTreeWidgetItem* parent = owner && items.contains(owner->value) ? items[owner->value] : card;
    auto* entry = new QTreeWidgetItem(parent, {QString::fromStdString(nameOf(design, item.id))});
    entry->setData(0, Qt::UserRole, QString::fromStdString(item.id.text()));
    entry->setToolTip(0, tr("%1, on %2")
                             .arg(QString::fromStdString(nameOf(design, item.id)),
                                  QString::fromStdString(item.seat)));
    items[item.id.value] = entry;
  }
  m_standing->expandAll();
  QTreeWidgetItem* current = card;
  if (const auto id = m_document->selection(); id && items.contains(id->value))
    current = items[id->value];
  m_standing->setCurrentItem(current);
  layOutStanding();
}

/// As high as its rows, but never over more than the upper half of the stage.
void StageView::layOutStanding() {
  constexpr int kWidth = 190, kRow = 23, kMargins = 10;
  const int rows = 1 + static_cast<int>(m_document->design().structures.size());
  m_standing->doItemsLayout(); // row heights are older than the font of the style
  m_standing->resize(kWidth, std::min(height() / 2, kMargins + rows * kRow));
}

void StageView::setHoveredPanel(const QString& key) {
  if (key == m_hovered) return;
  m_hovered = key;
  update();
}

void StageView::setAdding(bool on) {
  m_adding = on;
  m_hoveredSeat = -1;
  m_add->setChecked(on);
  layOutTags();
  update();
}

void StageView::showFinding(int index) {
  const auto analysis = m_analyst->current();
  m_shownFinding =
      analysis && index >= 0 && index < static_cast<int>(analysis->findings.size()) ? index : -1;
  if (m_shownFinding >= 0) {
    const Finding& f = analysis->findings[static_cast<std::size_t>(index)];
    m_fan->setOpening_rad(f.show_rad);
    if (!f.owners.empty()) m_document->select(f.owners.front());
  }
  update();
}

std::optional<QPointF> StageView::screenOf(PanelIndex panel, const Vec2& flat) const {
  if (!m_pose.placed[panel]) return std::nullopt;
  return camera().project(benchPose(*m_assembly, m_pose.opening_rad) *
                          (m_pose.panels[panel] * lift(flat)));
}

QPointF StageView::panelPoint(PanelIndex panel) const {
  return screenOf(panel, centroidOf(m_assembly->panels[panel].outline))
      .value_or(QPointF(-1000, -1000));
}

PanelIndex StageView::panelAt(const QPointF& point) const {
  for (std::size_t k = m_drawn.size(); k-- > 0;)
    if (m_drawn[k].outline.containsPoint(point, Qt::OddEvenFill)) return m_drawn[k].panel;
  return {};
}

void StageView::paintStatus(QPainter& painter) const {
  painter.setFont(Look::font(12));
  painter.setPen(Look::theme().stageSoft);
  QString text;
  if (m_analyst->busy())
    text = tr("Working the motion out …");
  else if (m_take)
    text = m_pickHint;
  else if (m_adding)
    text = tr("Choose a fold, or a face for figures. Esc ends.");
  else {
    QStringList missing;
    for (const Placement& placement : m_assembly->placements)
      if (!m_pose.placed[placement.panels.front()])
        missing << QString::fromStdString(nameOf(m_document->design(), placement.owner));
    if (!missing.isEmpty())
      text = tr("Out of reach here: %1").arg(missing.join(QStringLiteral(", ")));
    else if (const auto id = m_document->selection(); id && hasFocus())
      if (const StructureItem* item = m_document->design().find(*id))
        if (const ParameterSpec* spec = nudgedSize(*item))
          text = tr("↑ ↓ move it, with Ctrl change %1 (%2)")
                     .arg(words(spec->label).toLower(),
                          shownValue(m_document->design(), *spec,
                                     item->values.find(spec->key)->second));
  }
  if (!text.isEmpty())
    painter.drawText(QRectF(18, height() - 30, 300, 18), Qt::AlignLeft | Qt::AlignVCenter, text);
}

void StageView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  if (!m_assembly) return;
  StageStyle style;
  style.theme = Look::theme();
  style.selected = m_document->selection();
  style.hoverPanel = m_assembly->findPanel(m_hovered.toStdString());
  const auto analysis = m_analyst->current();
  if (analysis && m_shownFinding >= 0)
    for (const std::string& key :
         analysis->findings[static_cast<std::size_t>(m_shownFinding)].elements)
      style.troubled.insert(key);
  const Camera eye = camera();
  const QList<double> key{
      eye.turn_rad,   eye.height_rad,  eye.scale_px,     eye.centre.x(),
      eye.centre.y(), double(width()), double(height()), Look::isDark() ? 1.0 : 0.0};
  if (key != m_backgroundFor) {
    m_background = QImage(size() * devicePixelRatioF(), QImage::Format_RGB32);
    m_background.setDevicePixelRatio(devicePixelRatioF());
    QPainter behind(&m_background);
    behind.setRenderHint(QPainter::Antialiasing);
    paintStageBackground(behind, rect(), *m_assembly, eye, style.theme);
    m_backgroundFor = key;
  }
  painter.drawImage(QPointF(0, 0), m_background);
  style.background = false;
  style.ghostPages = !style.troubled.empty() && m_pose.opening_rad < radians(75);
  m_drawn = paintStage(painter, rect(), *m_assembly, m_pose, eye, style);
  painter.setRenderHint(QPainter::Antialiasing);
  if (m_adding)
    paintSeats(painter);
  else
    m_tags->paint(painter, true);
  paintBadges(painter);
  paintStatus(painter);
}

void StageView::resizeEvent(QResizeEvent*) {
  m_fan->setGeometry((width() - m_fan->sizeHint().width()) / 2,
                     height() - m_fan->sizeHint().height(), m_fan->sizeHint().width(),
                     m_fan->sizeHint().height());
  m_standing->move(14, 14);
  layOutStanding();
  m_add->adjustSize();
  m_add->move(width() - m_add->width() - 16, 16);
  layOutTags();
}

QList<AccessibleItem> StageView::accessibleItems() const {
  QList<AccessibleItem> items;
  if (!m_assembly) return items;
  for (PanelIndex p : m_assembly->panels.indices()) {
    if (!m_pose.placed[p]) continue;
    QPolygonF outline;
    for (const Vec2& c : m_assembly->panels[p].outline.rim)
      outline << *screenOf(p, c);
    items.append({QString::fromStdString(panelOnSheet(m_document->design(), *m_assembly, p)),
                  QString::fromStdString(m_assembly->panels[p].key),
                  outline.boundingRect().toRect(), QAccessible::Graphic, true});
  }
  for (const Seat& seat : m_assembly->seats)
    items.append({(seat.kind() == SeatKind::Face   ? tr("face %1")
                   : seat.kind() == SeatKind::Span ? tr("span %1")
                                                   : tr("fold %1"))
                      .arg(words(seat.key)),
                  words(seat.label),
                  QRectF(seatPoint(seat) - QPointF(8, 8), QSizeF(16, 16)).toRect(),
                  QAccessible::Button, true});
  for (const auto& tag : m_tags->tags())
    items.append({tr("size %1").arg(words(tag.spec->key)),
                  tr("%1 %2").arg(words(tag.spec->label), tag.text), tag.rect.toRect(),
                  QAccessible::Button, true});
  return items;
}

void StageView::pressItem(int index) {
  const QList<AccessibleItem> items = accessibleItems();
  const auto at = static_cast<std::size_t>(index), tags = m_tags->tags().size(),
             seats = m_assembly->seats.size(),
             panels = static_cast<std::size_t>(items.size()) - tags - seats;
  if (at < panels) {
    const std::string key = items.at(index).description.toStdString();
    m_document->select(m_assembly->panels[m_assembly->findPanel(key)].owner);
  } else if (at < panels + seats) {
    emit seatChosen(words(m_assembly->seats[SeatIndex(at - panels)].key),
                    mapToGlobal(items.at(index).rect.center()));
  } else
    m_tags->edit(static_cast<int>(at - panels - seats));
}

} // namespace hinge
