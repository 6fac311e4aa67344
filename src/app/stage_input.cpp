// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/look.h"
#include "app/saying.h"
#include "app/stage_view.h"
#include <QAccessible>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>
#include <utility>

// Mouse and keys on the stage: turning the card, picking, moving and sizing the selected structure.

namespace hinge {

void StageView::mousePressEvent(QMouseEvent* event) {
  m_pressedAt = event->position();
  m_moved = false;
  if (m_hand) {
    if (event->button() == Qt::LeftButton) m_hand->pressed(event->position());
    m_orbiting = event->button() == Qt::RightButton;
    return;
  }
  if (event->button() != Qt::LeftButton) return;
  if (m_adding) {
    if (const SeatIndex seat = m_scene.seatAt(event->position()); seat.valid())
      emit seatChosen(asQt(assembly()->seats[seat].key), mapToGlobal(event->position().toPoint()));
    return;
  }
  if (m_tags->press(event->position())) return;
  if (const auto knob = m_scene.knobAt(event->position())) {
    m_knob = knob;
    return;
  }
  const auto analysis = m_analyst->current();
  const int badge = analysis ? m_scene.badgeAt(event->position(), analysis->findings) : -1;
  if (badge >= 0) return void(emit findingChosen(badge));
  m_orbiting = true;
}

void StageView::mouseMoveEvent(QMouseEvent* event) {
  if (m_knob) {
    m_scene.setShare(*m_knob, m_scene.shareAt(*m_knob, event->position()));
    return refresh();
  }
  if (m_orbiting) {
    const QPointF d = event->position() - m_pressedAt;
    if (!m_moved && std::hypot(d.x(), d.y()) < 4) return;
    m_moved = true;
    m_settles.start();
    m_scene.orbit(-d.x() * 0.008, d.y() * 0.006);
    m_pressedAt = event->position();
    layOutTags();
    update();
    return;
  }
  if (m_hand) return m_hand->pointed(event->position());
  if (m_adding) {
    const SeatIndex seat = m_scene.seatAt(event->position());
    if (seat != m_hoveredSeat) m_hoveredSeat = seat, update();
    return;
  }
  if (m_tags->move(event->position())) return;
  const PanelIndex panel = m_scene.panelAt(event->position());
  const QString key = panel.valid() ? asQt(assembly()->panels[panel].key) : QString();
  if (key != m_hovered) {
    m_hovered = key;
    emit panelHovered(key);
    update();
  }
}

void StageView::mouseReleaseEvent(QMouseEvent* event) {
  if (m_hand) {
    m_orbiting = false;
    if (event->button() == Qt::LeftButton) m_hand->released(event->position());
    return;
  }
  if (std::exchange(m_knob, std::nullopt)) return;
  if (m_tags->release(event->position())) return;
  if (m_orbiting && !m_moved) {
    const PanelIndex panel = m_scene.panelAt(event->position());
    m_document->select(panel.valid() ? assembly()->panels[panel].owner : std::nullopt);
    setFocus();
  }
  m_orbiting = false;
}

void StageView::take(StageHand* hand) {
  StageHand* before = std::exchange(m_hand, hand);
  if (before && before != hand) before->ended();
  if (!hand) {
    unsetCursor();
    return update();
  }
  if (m_adding) setAdding(false);
  setCursor(Qt::CrossCursor);
  setFocus();
  update();
}

void StageView::mouseDoubleClickEvent(QMouseEvent*) {
  m_scene.lookStraight();
  layOutTags();
  update();
}

void StageView::wheelEvent(QWheelEvent* event) {
  m_settles.start();
  m_scene.zoom(std::pow(1.0015, event->angleDelta().y()));
  layOutTags();
  update();
}

void StageView::leaveEvent(QEvent*) {
  if (m_tags->leave()) update();
  if (m_hovered.isEmpty()) return;
  m_hovered.clear();
  emit panelHovered({});
  update();
}

void StageView::liftAll() {
  const std::size_t count = assembly()->lifts.size();
  bool up = true;
  for (std::size_t k = 0; k < count; ++k)
    up = up && m_scene.share(k) == 1;
  for (std::size_t k = 0; k < count; ++k)
    m_scene.setShare(k, up ? 0 : assembly()->lifts[k].nextStop(m_scene.share(k)));
  refresh();
}

bool StageView::chooseSeat(const QKeyEvent& event) {
  const auto& seats = assembly()->seats;
  const bool enter = event.key() == Qt::Key_Return || event.key() == Qt::Key_Enter;
  if (enter && m_hoveredSeat.valid()) {
    emit seatChosen(asQt(seats[m_hoveredSeat].key),
                    mapToGlobal(m_scene.beadOf(seats[m_hoveredSeat]).toPoint()));
    return true;
  }
  if (event.key() != Qt::Key_PageDown && event.key() != Qt::Key_PageUp) return false;
  std::vector<SeatIndex> order; // folds first, as they have the plus signs
  for (const bool faces : {false, true})
    for (SeatIndex s : seats.indices())
      if ((seats[s].kind() == SeatKind::Face) == faces && pose().placed[seats[s].sides[0].panel])
        order.push_back(s);
  if (order.empty()) return true;
  const auto count = static_cast<std::ptrdiff_t>(order.size());
  const auto at = std::ranges::find(order, m_hoveredSeat) - order.begin();
  const std::ptrdiff_t next =
      event.key() == Qt::Key_PageDown ? (at == count ? 0 : at + 1) : (at == 0 ? count : at) - 1;
  m_hoveredSeat = order[static_cast<std::size_t>(next % count)];
  // A screen reader says the fold that is reached.
  const qsizetype panels =
      accessibleItems().size() - static_cast<qsizetype>(m_tags->tags().size() + seats.size());
  QAccessibleEvent reached(this, QAccessible::Focus);
  reached.setChild(static_cast<int>(panels) + m_hoveredSeat.value);
  QAccessible::updateAccessibility(&reached);
  update();
  return true;
}

void StageView::keyPressEvent(QKeyEvent* event) {
  if (m_hand && m_hand->key(*event)) return;
  if (m_adding && chooseSeat(*event)) return;
  if (!m_adding && !m_hand && m_nudge->take(*event)) return;
  switch (event->key()) {
  case Qt::Key_Escape:
    if (m_hand)
      take(nullptr);
    else if (m_adding)
      setAdding(false);
    else
      m_document->select(std::nullopt);
    return;
  case Qt::Key_L: return liftAll();
  case Qt::Key_Space: m_fan->togglePlay(); return;
  case Qt::Key_Left:
    m_fan->setValue(m_fan->value() + (event->modifiers() & Qt::ShiftModifier ? 1 : 20));
    return;
  case Qt::Key_Right:
    m_fan->setValue(m_fan->value() - (event->modifiers() & Qt::ShiftModifier ? 1 : 20));
    return;
  case Qt::Key_Home: m_fan->setValue(0); return;
  case Qt::Key_End: m_fan->setValue(1800); return;
  default: break;
  }
  const bool letter = event->key() >= Qt::Key_A && event->key() <= Qt::Key_Z;
  if (!letter || event->modifiers() != Qt::NoModifier) return QWidget::keyPressEvent(event);
  emit toolKey(event->key());
}

} // namespace hinge
