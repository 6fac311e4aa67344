// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/look.h"
#include "app/stage_view.h"
#include "core/structures/registry.h"
#include "core/units/lattice.h"
#include <QMouseEvent>
#include <cmath>
#include <utility>

// Mouse and keys on the stage: turning the card, picking, moving and sizing the selected structure.

namespace hinge {

void StageView::mousePressEvent(QMouseEvent* event) {
  m_pressedAt = event->position();
  m_moved = false;
  if (event->button() != Qt::LeftButton) return;
  if (m_take) {
    if (const auto picked = pickedAt(event->position())) endPick(picked);
    return;
  }
  if (m_adding) {
    if (const int seat = seatAt(event->position()); seat >= 0)
      emit seatChosen(words(m_assembly->seats[SeatIndex(seat)].key),
                      mapToGlobal(event->position().toPoint()));
    return;
  }
  if (m_tags->press(event->position())) return;
  if (const int badge = badgeAt(event->position()); badge >= 0) {
    emit findingChosen(badge);
    return;
  }
  m_orbiting = true;
}

void StageView::mouseMoveEvent(QMouseEvent* event) {
  if (m_orbiting) {
    const QPointF d = event->position() - m_pressedAt;
    if (!m_moved && std::hypot(d.x(), d.y()) < 4) return;
    m_moved = true;
    m_turn -= d.x() * 0.008, m_height += d.y() * 0.006;
    m_pressedAt = event->position();
    layOutTags();
    update();
    return;
  }
  if (m_adding) {
    const int seat = seatAt(event->position());
    if (seat != m_hoveredSeat) m_hoveredSeat = seat, update();
    return;
  }
  if (!m_take && m_tags->move(event->position())) return;
  const PanelIndex panel = panelAt(event->position());
  const QString key = panel.valid() ? words(m_assembly->panels[panel].key) : QString();
  if (key != m_hovered) {
    m_hovered = key;
    emit panelHovered(key);
    update();
  }
}

void StageView::mouseReleaseEvent(QMouseEvent* event) {
  if (m_take) return;
  if (m_tags->release(event->position())) return;
  if (m_orbiting && !m_moved) {
    const PanelIndex panel = panelAt(event->position());
    m_document->select(panel.valid() ? m_assembly->panels[panel].owner : std::nullopt);
    setFocus();
  }
  m_orbiting = false;
}

void StageView::pick(const QString& hint, std::function<void(std::optional<Picked>)> take) {
  if (m_take) endPick(std::nullopt);
  if (m_adding) setAdding(false);
  m_pickHint = hint;
  m_take = std::move(take);
  setCursor(Qt::CrossCursor);
  setFocus();
  update();
}

void StageView::endPick(const std::optional<Picked>& picked) {
  const auto take = std::exchange(m_take, nullptr);
  unsetCursor();
  update();
  if (take) take(picked);
}

std::optional<StageView::Picked> StageView::pickedAt(const QPointF& point) const {
  const int seat = faceAt(point);
  if (seat < 0) return std::nullopt;
  const Seat& face = m_assembly->seats[SeatIndex(seat)];
  Picked picked{face.sides[0].panel, face.key};
  // Where the line of sight meets the paper: two unknowns, solved by Newton steps on the screen.
  Vec2 at = centroidOf(m_assembly->panels[picked.panel].outline);
  const auto missed = [&](const Vec2& p) {
    const QPointF q = *screenOf(picked.panel, p) - point;
    return Vec2(q.x(), q.y());
  };
  for (int k = 0; k < 20; ++k) {
    const Vec2 miss = missed(at);
    Eigen::Matrix2d slope;
    slope << missed(at + Vec2(0.1, 0)) - miss, missed(at + Vec2(0, 0.1)) - miss;
    if (std::abs(slope.determinant()) < 1e-9) return std::nullopt; // seen from the edge
    at -= 0.1 * slope.inverse() * miss;
    if (miss.norm() < 1e-6) break;
  }
  const double lattice = latticeStep_mm(m_document->design().settings.unit);
  const auto snapped = [&](const Vec2& p) {
    return Vec2(onLattice(p.x(), lattice), onLattice(p.y(), lattice));
  };
  picked.onPiece = snapped(at);
  picked.onFace = snapped((face.sides[0].toPiece.inverse() * lift(at)).head<2>());
  return picked;
}

void StageView::mouseDoubleClickEvent(QMouseEvent*) {
  m_turn = m_height = 0, m_zoom = 1;
  layOutTags();
  update();
}

void StageView::wheelEvent(QWheelEvent* event) {
  m_zoom = std::clamp(m_zoom * std::pow(1.0015, event->angleDelta().y()), 0.5, 5.0);
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

const ParameterSpec* StageView::nudgedSize(const StructureItem& item) const {
  const ParameterTable table = parametersOf(item);
  if (const ParameterSpec* spec = findSpec(table, m_nudged)) return spec;
  for (const ParameterSpec& spec : table)
    if (spec.sense != Sense::Place && !spec.whole()) return &spec;
  return nullptr;
}

bool StageView::nudge(QKeyEvent* event) {
  const auto id = m_document->selection();
  const StructureItem* item = id ? m_document->committed().find(*id) : nullptr;
  if (!item || m_adding) return false;
  const ParameterTable table = parametersOf(*item);
  const bool control = event->modifiers() & Qt::ControlModifier;
  const bool along = event->key() == Qt::Key_Up || event->key() == Qt::Key_Down;
  if (control && (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right)) {
    // Through the sizes in the order of the table.
    const int count = static_cast<int>(table.size()),
              way = event->key() == Qt::Key_Right ? 1 : count - 1;
    int k = static_cast<int>(nudgedSize(*item) - table.data());
    do
      k = (k + way) % count;
    while (table[static_cast<std::size_t>(k)].sense == Sense::Place ||
           table[static_cast<std::size_t>(k)].whole());
    m_nudged = table[static_cast<std::size_t>(k)].key;
    update();
    return true;
  }
  if (!along) return false;
  const ParameterSpec* spec = control ? nudgedSize(*item) : findSense(table, Sense::Place);
  if (!spec) return false;
  const double step = spec->unit == ParameterUnit::Millimetre
                          ? latticeStep_mm(m_document->design().settings.unit)
                          : kLattice_deg;
  const double lattice = step * (event->modifiers() & Qt::ShiftModifier ? 10 : 1);
  const double value = std::clamp(item->values.find(spec->key)->second +
                                      (event->key() == Qt::Key_Up ? lattice : -lattice),
                                  spec->least, spec->most);
  auto next = setValues(m_document->committed(), *id, linkedChange(*item, *spec, value, true));
  Result<void> done;
  if (!next)
    done = next.error();
  else
    done = m_document->apply(
        *next,
        control ? tr("change %1 of %2").arg(words(spec->label), QString::fromStdString(id->text()))
                : tr("move %1").arg(QString::fromStdString(id->text())));
  if (!done) emit refused(QString::fromStdString(done.error().text()));
  return true;
}

void StageView::keyPressEvent(QKeyEvent* event) {
  if (nudge(event)) return;
  switch (event->key()) {
  case Qt::Key_Escape:
    if (m_take)
      endPick(std::nullopt);
    else if (m_adding)
      setAdding(false);
    else
      m_document->select(std::nullopt);
    return;
  case Qt::Key_Space: m_fan->togglePlay(); return;
  case Qt::Key_Left:
    m_fan->setValue(m_fan->value() + (event->modifiers() & Qt::ShiftModifier ? 1 : 20));
    return;
  case Qt::Key_Right:
    m_fan->setValue(m_fan->value() - (event->modifiers() & Qt::ShiftModifier ? 1 : 20));
    return;
  case Qt::Key_Home: m_fan->setValue(0); return;
  case Qt::Key_End: m_fan->setValue(1800); return;
  default: QWidget::keyPressEvent(event);
  }
}

} // namespace hinge
