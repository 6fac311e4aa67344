// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stage_view.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/structures/names.h"
#include "core/structures/registry.h"
#include <QElapsedTimer>
#include <QMouseEvent>
#include <cmath>
#include <utility>

namespace hinge {
namespace {

/// A card whose printed papers take longer than this to paint moves in their plain colours, and
/// has its prints again when it has stood still for a moment.
constexpr double kSmooth_ms = 9;
constexpr int kSettles_ms = 150;

} // namespace

StageView::StageView(Document* document, Analyst* analyst, QWidget* parent)
    : QWidget(parent), m_document(document), m_analyst(analyst) {
  setMouseTracking(true);
  setFocusPolicy(Qt::StrongFocus);
  setAccessibleName(tr("Stage"));
  setAccessibleDescription(
      tr("The moving structure. Click a panel to select its structure; drag "
         "to look from another side. What a hand lifts, spins or pulls has a grip: drag it, "
         "or press L."));
  setMinimumSize(420, 360);
  m_fan = new Fan(this);
  m_tags = new SizeTags(this, document);
  m_standing = new StandingTree(document, this);
  m_nudge = new SizeNudge(document, this);
  connect(m_nudge, &SizeNudge::refused, this, &StageView::refused);
  connect(m_nudge, &SizeNudge::chosen, this, qOverload<>(&QWidget::update));
  m_add = new QToolButton(this);
  m_add->setCheckable(true);
  m_add->setText(tr("+  Add a structure"));
  m_add->setAccessibleName(tr("Add a structure"));
  m_add->setToolTip(tr("Shows the folds on which something can stand (A)"));
  connect(m_add, &QToolButton::toggled, this, &StageView::setAdding);
  m_settles.setSingleShot(true);
  m_settles.setInterval(kSettles_ms);
  connect(&m_settles, &QTimer::timeout, this, qOverload<>(&QWidget::update));
  connect(m_fan, &QAbstractSlider::valueChanged, this, [this] {
    m_settles.start();
    refresh();
  });
  connect(m_fan, &Fan::findingChosen, this, &StageView::findingChosen);
  connect(m_tags, &SizeTags::refused, this, &StageView::refused);
  connect(m_tags, &SizeTags::repaint, this, qOverload<>(&QWidget::update));
  connect(document, &Document::started, this, [this] {
    if (m_adding) setAdding(false);
    m_scene.lookStraight();
    update();
  });
  connect(document, &Document::designChanged, this, [this] {
    m_shownFinding = -1;
    refresh();
  });
  connect(document, &Document::selectionChanged, this, [this] {
    layOutTags();
    update();
  });
  m_preview = new PreviewMotion(this);
  connect(m_preview, &PreviewMotion::changed, this, [this] { refresh(); });
  connect(analyst, &Analyst::changed, this, [this] {
    m_fan->setAnalysis(m_analyst->current());
    refresh();
  });
  refresh();
}

void StageView::showEvent(QShowEvent* event) {
  if (std::exchange(m_stale, false)) refresh();
  QWidget::showEvent(event);
}

void StageView::refresh() {
  if (m_restsHidden && !isVisible()) {
    m_stale = true;
    // The opening is the same on all stages, so its range must be.
    return m_fan->setCard(m_document->design().card);
  }
  // apply() and preview() let only designs through that assemble.
  if (m_scene.show(m_document->snapshot())) m_fan->setCard(m_scene.shown()->design().card);
  if (!assembly()) return;
  const auto missing = openScene();
  m_isShown = Shown::AsItIs;
  if (!m_document->previewing())
    m_preview->ask(nullptr);
  else if (missing > m_missing && !m_document->snapshot()->motionIfReady()) {
    // New panels have no place until the motion is worked out. Until then: what the stroke came to
    // a moment ago, or the card as it was.
    m_preview->ask(m_document->snapshot());
    const auto ago = m_preview->newest();
    m_isShown = ago ? Shown::AMomentAgo : Shown::AsBefore;
    if (m_scene.show(ago ? ago : m_document->committedSnapshot())) openScene();
  }
  if (!m_document->previewing()) m_missing = missing;
  ++m_stillCount;
  emit poseChanged();
  layOutTags();
  update();
}

std::ptrdiff_t StageView::openScene() {
  m_scene.open(drawableOpening(m_fan->opening_rad()), m_analyst->lastMotion());
  return std::ranges::count(pose().placed, char(0));
}

void StageView::layOutTags() {
  if (!assembly() || m_adding) {
    m_tags->clear();
    return;
  }
  m_tags->update(
      *assembly(), [this](PanelIndex p, const Vec2& q) { return m_scene.onScreen(p, q); },
      QRectF(rect()).adjusted(6, 6, -6, -m_fan->height() + 30));
}

void StageView::setHoveredPanel(const QString& key) {
  if (key == m_hovered) return;
  m_hovered = key;
  update();
}

void StageView::setLettered(PieceIndex piece) {
  m_lettered = piece;
  update();
}

void StageView::setAdding(bool on) {
  if (on && m_hand) take(nullptr);
  m_adding = on;
  m_hoveredSeat = {};
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

void StageView::paintStatus(QPainter& painter) const {
  painter.setFont(Look::font(12));
  painter.setPen(Look::theme().stageSoft);
  QString text;
  if (m_analyst->busy())
    text = tr("Working the motion out …");
  else if (m_isShown == Shown::AsBefore)
    text = tr("As it was before this stroke: working out how it folds …");
  else if (m_isShown == Shown::AMomentAgo)
    text = tr("As the stroke was a moment ago …");
  else if (m_adding)
    text = tr("Choose a fold, or a face for figures: click, or Page Down and Enter. Esc ends.");
  else {
    QStringList missing;
    for (const Placement& placement : assembly()->placements)
      if (!pose().placed[placement.panels.front()])
        missing << (placement.owner ? said(nameOf(m_document->design(), *placement.owner))
                                    : said(Text("card")));
    if (!missing.isEmpty())
      text = tr("Out of reach here: %1").arg(missing.join(QStringLiteral(", ")));
    else if (const auto id = m_document->selection(); id && hasFocus())
      if (const StructureItem* item = m_document->design().find(*id))
        if (const ParameterSpec* spec = m_nudge->sizeOf(*item))
          text = tr("↑ ↓ move it, with Ctrl change %1 (%2)")
                     .arg(said(nameOf(*spec)).toLower(),
                          shownValue(m_document->design(), *spec,
                                     item->values.find(spec->key)->second));
  }
  if (!text.isEmpty())
    painter.drawText(QRectF(18, height() - 76, std::max(130, m_fan->x() + 10), 64),
                     Qt::AlignLeft | Qt::AlignBottom | Qt::TextWordWrap, text);
}

/// What the hand on the stage can do, over the opening control.
void StageView::paintHint(QPainter& painter) const {
  painter.setFont(Look::font(12));
  const QString text = m_hand->hint();
  const QRectF room(24, m_fan->y() - 36, width() - 48, 60);
  const QRectF box = painter.boundingRect(room, Qt::AlignHCenter | Qt::TextWordWrap, text)
                         .adjusted(-12, -5, 12, 5);
  QColor ground = Look::theme().stageTop;
  ground.setAlphaF(0.85f);
  painter.setPen(Qt::NoPen);
  painter.setBrush(ground);
  painter.drawRoundedRect(box, 8, 8);
  painter.setPen(Look::theme().stageInk);
  painter.drawText(room, Qt::AlignHCenter | Qt::TextWordWrap, text);
}

void StageView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  if (!assembly()) return;
  StageStyle style;
  style.theme = Look::theme();
  style.look = m_scene.look();
  style.selected = m_document->selection();
  style.hoverPanel = assembly()->findPanel(m_hovered.toStdString());
  const auto analysis = m_analyst->current();
  if (analysis && !m_document->previewing()) style.sheets = analysis->snapshot->inPlaneIfReady();
  if (analysis && m_shownFinding >= 0)
    for (const std::string& key :
         analysis->findings[static_cast<std::size_t>(m_shownFinding)].elements)
      style.troubled.insert(key);
  const Camera& eye = m_scene.camera();
  const QList<double> key{
      eye.turn_rad,   eye.height_rad,  eye.scale_px,     eye.centre.x(),
      eye.centre.y(), double(width()), double(height()), Look::isDark() ? 1.0 : 0.0};
  if (key != m_backgroundFor) {
    m_background = QImage(size() * devicePixelRatioF(), QImage::Format_RGB32);
    m_background.setDevicePixelRatio(devicePixelRatioF());
    QPainter behind(&m_background);
    behind.setRenderHint(QPainter::Antialiasing);
    paintStageBackground(behind, rect(), *assembly(), eye, style.theme);
    m_backgroundFor = key;
  }
  style.background = false;
  style.quick = m_document->previewing();
  style.ghostPages = !style.troubled.empty() && pose().opening_rad < radians(75);
  style.plainPrints = m_settles.isActive() && m_printed_ms > kSmooth_ms;
  const auto paintCard = [&](QPainter& on) {
    on.drawImage(QPointF(0, 0), m_background);
    QElapsedTimer took;
    took.start();
    m_scene.setDrawn(paintStage(on, rect(), *assembly(), pose(), eye, style));
    if (!style.plainPrints) m_printed_ms = static_cast<double>(took.nsecsElapsed()) * 1e-6;
  };
  // Under a hand the card stands still, and is painted once.
  QList<double> still = key;
  still << pose().opening_rad << static_cast<double>(m_stillCount)
        << (style.plainPrints ? 1.0 : 0.0);
  if (!m_hand) {
    paintCard(painter);
    m_stillFor.clear();
  } else {
    if (m_stillFor != still) {
      m_still = QImage(size() * devicePixelRatioF(), QImage::Format_RGB32);
      m_still.setDevicePixelRatio(devicePixelRatioF());
      QPainter on(&m_still);
      paintCard(on);
      m_stillFor = still;
    }
    painter.drawImage(QPointF(0, 0), m_still);
  }
  painter.setRenderHint(QPainter::Antialiasing);
  if (m_adding)
    paintSeats(painter);
  else
    m_tags->paint(painter, true);
  paintLetters(painter);
  paintKnobs(painter);
  paintBadges(painter);
  paintStatus(painter);
  if (!m_hand) return;
  m_hand->paint(painter);
  paintHint(painter);
}

void StageView::resizeEvent(QResizeEvent*) {
  m_fan->setGeometry((width() - m_fan->sizeHint().width()) / 2,
                     height() - m_fan->sizeHint().height(), m_fan->sizeHint().width(),
                     m_fan->sizeHint().height());
  m_scene.setArea(QRectF(24, 26, width() - 48, height() - 26 - m_fan->sizeHint().height() + 6));
  m_standing->move(14, 14);
  m_standing->layOut(height() / 2); // never over more than the upper half of the stage
  m_add->adjustSize();
  m_add->move(width() - m_add->width() - 16, 16);
  layOutTags();
}

QList<AccessibleItem> StageView::accessibleItems() const {
  QList<AccessibleItem> items;
  if (!assembly()) return items;
  for (PanelIndex p : assembly()->panels.indices()) {
    if (!pose().placed[p]) continue;
    items.append({said(panelOnSheet(m_document->design(), *assembly(), p)),
                  QString::fromStdString(assembly()->panels[p].key),
                  m_scene.outlineOf(p).boundingRect().toRect(), QAccessible::Graphic, true});
  }
  for (const Seat& seat : assembly()->seats)
    items.append({(seat.kind() == SeatKind::Face   ? tr("face %1")
                   : seat.kind() == SeatKind::Span ? tr("span %1")
                                                   : tr("fold %1"))
                      .arg(asQt(seat.key)),
                  said(seatName(m_document->design(), *assembly(), seat)),
                  QRectF(m_scene.beadOf(seat) - QPointF(8, 8), QSizeF(16, 16)).toRect(),
                  QAccessible::Button, true});
  for (const auto& tag : m_tags->tags())
    items.append({tr("size %1").arg(asQt(tag.spec->key)),
                  tr("%1 %2").arg(said(nameOf(*tag.spec)), tag.text), tag.rect.toRect(),
                  QAccessible::Button, true});
  return items;
}

void StageView::pressItem(int index) {
  const QList<AccessibleItem> items = accessibleItems();
  const auto at = static_cast<std::size_t>(index), tags = m_tags->tags().size(),
             seats = assembly()->seats.size(),
             panels = static_cast<std::size_t>(items.size()) - tags - seats;
  if (at < panels) {
    const std::string key = items.at(index).description.toStdString();
    m_document->select(assembly()->panels[assembly()->findPanel(key)].owner);
  } else if (at < panels + seats) {
    emit seatChosen(asQt(assembly()->seats[SeatIndex(at - panels)].key),
                    mapToGlobal(items.at(index).rect.center()));
  } else
    m_tags->edit(static_cast<int>(at - panels - seats));
}

} // namespace hinge
