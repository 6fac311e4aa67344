// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/size_tags.h"
#include "app/look.h"
#include "app/saying.h"
#include "core/structures/registry.h"
#include "core/units/lattice.h"
#include <QKeyEvent>
#include <cmath>

namespace hinge {

QString shownValue(const Design& design, const ParameterSpec& spec, double value) {
  if (spec.unit == ParameterUnit::Degree) return QString::fromStdString(formatAngle(value));
  if (spec.whole()) return QString::number(static_cast<int>(value));
  return QString::fromStdString(formatLength(value, design.settings.unit, false));
}

Result<double> typedValue(const Design& design, const ParameterSpec& spec, const QString& text) {
  if (spec.unit == ParameterUnit::Millimetre)
    return parseLength_mm(text.toStdString(), design.settings.unit);
  return parseAngle_deg(text.toStdString());
}

bool sidesAlike(const StructureItem& item) {
  for (const ParameterSpec& spec : parametersOf(item))
    if (!spec.twin.empty() &&
        item.values.find(spec.key)->second != item.values.find(spec.twin)->second)
      return false;
  return true;
}

ParameterValues linkedChange(const StructureItem& item, const ParameterSpec& spec, double value,
                             bool bothSides) {
  ParameterValues changes{{std::string(spec.key), value}};
  if (bothSides && !spec.twin.empty() && sidesAlike(item)) changes.emplace(spec.twin, value);
  return changes;
}

SizeTags::SizeTags(QWidget* view, Document* document)
    : QObject(view), m_view(view), m_document(document) {}

void SizeTags::update(const Assembly& assembly, const Projector& projector, const QRectF& allowed) {
  m_tags.clear();
  const auto id = m_document->selection();
  const StructureItem* item = id ? m_document->design().find(*id) : nullptr;
  if (!item) return;
  const ParameterTable table = parametersOf(*item);
  const bool alike = sidesAlike(*item);
  const QFontMetricsF metrics(Look::font(12, QFont::DemiBold));
  for (const DimensionMark& mark : assembly.dimensions) {
    if (mark.owner != *id) continue;
    const ParameterSpec* spec = findSpec(table, mark.key);
    // Alike sides need one tag for both: the table's first of the two.
    if (alike && !spec->twin.empty() && spec > findSpec(table, spec->twin)) {
      const bool firstShown =
          std::ranges::any_of(m_tags, [&](const Tag& t) { return t.spec->key == spec->twin; });
      if (firstShown) continue;
    }
    const auto from = projector(mark.panel, mark.from), to = projector(mark.panel, mark.to);
    if (!from || !to) continue;
    Tag tag{spec, shownValue(m_document->design(), *spec, item->values.find(spec->key)->second),
            {},   *from,
            *to,  {},
            1};
    if (mark.corner) tag.corner = projector(mark.panel, *mark.corner);
    const double length_mm = (mark.to - mark.from).norm();
    tag.pixelsPerUnit = spec->unit == ParameterUnit::Millimetre
                            ? std::max(0.5, QLineF(*from, *to).length() / std::max(1.0, length_mm))
                            : 4.0;
    const QSizeF size(metrics.horizontalAdvance(tag.text) + 14, 20);
    QPointF middle = 0.5 * (*from + *to);
    if (tag.corner) {
      const QPointF u = *from - *tag.corner, v = *to - *tag.corner;
      const double reach = 34.0;
      const QPointF bisector =
          u / std::max(1.0, std::hypot(u.x(), u.y())) + v / std::max(1.0, std::hypot(v.x(), v.y()));
      middle =
          *tag.corner + bisector * (reach / std::max(0.2, std::hypot(bisector.x(), bisector.y())));
    }
    tag.rect = QRectF(middle - QPointF(0.5 * size.width(), 0.5 * size.height()), size);
    // Tags that would cover one another give way in small rings round their place.
    const QRectF home = tag.rect;
    for (int ring = 0; ring < 48; ++ring) {
      const bool covered = std::ranges::any_of(
          m_tags, [&](const Tag& t) { return t.rect.adjusted(-2, -2, 2, 2).intersects(tag.rect); });
      if (!covered && allowed.contains(tag.rect)) break;
      const double angle = ring * 2.4, radius = 6.0 + 3.0 * ring;
      tag.rect = home.translated(radius * std::cos(angle), radius * std::sin(angle));
    }
    if (!allowed.intersects(tag.rect)) continue;
    m_tags.push_back(tag);
  }
}

void SizeTags::paint(QPainter& painter, bool onStage) const {
  const Theme& theme = Look::theme();
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setFont(Look::font(12, QFont::DemiBold));
  const QColor line = onStage ? QColor(0xff, 0xf6, 0xe4) : theme.accent;
  for (std::size_t k = 0; k < m_tags.size(); ++k) {
    const Tag& tag = m_tags[k];
    const bool hot = static_cast<int>(k) == m_hover || static_cast<int>(k) == m_dragged;
    QColor thin = line;
    thin.setAlphaF(hot ? 1.0f : onStage ? 0.55f : 0.8f);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(thin, 1.1));
    if (tag.corner) {
      const QLineF u(*tag.corner, tag.from), v(*tag.corner, tag.to);
      const double radius = std::min({24.0, u.length(), v.length()});
      double span = v.angle() - u.angle();
      while (span > 180)
        span -= 360;
      while (span < -180)
        span += 360;
      painter.drawArc(
          QRectF(tag.corner->x() - radius, tag.corner->y() - radius, 2 * radius, 2 * radius),
          static_cast<int>(u.angle() * 16), static_cast<int>(span * 16));
    } else {
      painter.drawLine(tag.from, tag.to);
      painter.setBrush(thin);
      painter.drawEllipse(tag.from, 1.8, 1.8);
      painter.drawEllipse(tag.to, 1.8, 1.8);
    }
    const QPointF anchor = tag.corner ? *tag.corner : 0.5 * (tag.from + tag.to);
    if (!tag.rect.adjusted(-14, -14, 14, 14).contains(anchor) && !tag.corner)
      painter.drawLine(anchor, tag.rect.center());
    QColor back = hot ? theme.accent : onStage ? QColor(0x2a, 0x27, 0x35) : theme.raised;
    back.setAlphaF(hot ? 1.0f : 0.92f);
    painter.setPen(QPen(hot ? theme.accent : onStage ? QColor(0x6c, 0x63, 0x72) : theme.line, 1));
    painter.setBrush(back);
    // Held sizes have square corners, giving ones round: readable without colour.
    const double round = tag.spec->role == ParameterRole::Held ? 2 : 9;
    painter.drawRoundedRect(tag.rect, round, round);
    painter.setPen(hot ? theme.accentInk : onStage ? theme.stageInk : theme.ink);
    painter.drawText(tag.rect, Qt::AlignCenter, tag.text);
  }
  painter.restore();
}

int SizeTags::at(const QPointF& point) const {
  for (std::size_t k = m_tags.size(); k-- > 0;)
    if (m_tags[k].rect.contains(point)) return static_cast<int>(k);
  return -1;
}

bool SizeTags::press(const QPointF& point) {
  closeEditor(true);
  m_dragged = at(point);
  if (m_dragged < 0) return false;
  m_pressedAt = point;
  m_moved = false;
  const StructureItem* item = m_document->design().find(*m_document->selection());
  m_valueAtPress = item->values.find(m_tags[static_cast<std::size_t>(m_dragged)].spec->key)->second;
  return true;
}

bool SizeTags::move(const QPointF& point) {
  if (m_dragged >= 0) {
    const Tag& tag = m_tags[static_cast<std::size_t>(m_dragged)];
    const double dx = point.x() - m_pressedAt.x();
    if (!m_moved && std::abs(dx) < 4) return true;
    m_moved = true;
    const bool angle = tag.spec->unit == ParameterUnit::Degree;
    const double lattice =
        angle ? kLattice_deg : latticeStep_mm(m_document->design().settings.unit);
    const double value = std::clamp(m_valueAtPress + onLattice(dx / tag.pixelsPerUnit, lattice),
                                    tag.spec->least, tag.spec->most);
    commit(*tag.spec, value, true);
    return true;
  }
  const int hover = at(point);
  if (hover != m_hover) {
    m_hover = hover;
    const ParameterSpec* spec = hover < 0 ? nullptr : m_tags[static_cast<std::size_t>(hover)].spec;
    m_view->setToolTip(
        !spec ? QString()
              : tr("%1: %2\n%3. Click to type, drag to slide.")
                    .arg(said(nameOf(*spec)), said(meaningOf(*spec)),
                         spec->role == ParameterRole::Held ? tr("Held") : tr("Gives")));
    m_view->setCursor(hover < 0 ? Qt::ArrowCursor : Qt::SizeHorCursor);
    emit repaint();
  }
  return hover >= 0;
}

bool SizeTags::release(const QPointF&) {
  if (m_dragged < 0) return false;
  const int index = m_dragged;
  m_dragged = -1;
  if (!m_moved) {
    edit(index);
    return true;
  }
  const Design shown = m_document->design();
  const auto id = m_document->selection();
  const ParameterSpec* spec = static_cast<std::size_t>(index) < m_tags.size()
                                  ? m_tags[static_cast<std::size_t>(index)].spec
                                  : nullptr;
  if (auto done = m_document->apply(shown, tr("change %1 of %2")
                                               .arg(spec ? said(nameOf(*spec)) : tr("size"),
                                                    QString::fromStdString(id->text())));
      !done)
    emit refused(said(done.error(), m_document->design().settings.unit));
  return true;
}

bool SizeTags::leave() {
  const bool changed = m_hover >= 0;
  m_hover = -1;
  return changed;
}

void SizeTags::commit(const ParameterSpec& spec, double value, bool preview) {
  const auto id = m_document->selection();
  const StructureItem* item = id ? m_document->committed().find(*id) : nullptr;
  if (!item) return;
  auto edited = setValues(m_document->committed(), *id, linkedChange(*item, spec, value, true));
  Result<void> done;
  if (!edited)
    done = edited.error();
  else if (preview)
    done = m_document->preview(*edited);
  else
    done = m_document->apply(
        *edited, tr("change %1 of %2").arg(said(nameOf(spec)), QString::fromStdString(id->text())));
  if (!done) emit refused(said(done.error(), m_document->design().settings.unit));
}

void SizeTags::edit(int index) {
  if (index < 0 || index >= static_cast<int>(m_tags.size())) return;
  closeEditor(true);
  const Tag tag = m_tags[static_cast<std::size_t>(index)];
  m_edited = tag.spec;
  m_editor = new QLineEdit(tag.text, m_view);
  m_editor->setAccessibleName(said(nameOf(*tag.spec)));
  m_editor->setAlignment(Qt::AlignCenter);
  m_editor->setGeometry(tag.rect.adjusted(-16, -4, 16, 4).toRect());
  m_editor->installEventFilter(this);
  m_editor->selectAll();
  m_editor->show();
  m_editor->setFocus();
}

void SizeTags::closeEditor(bool take) {
  if (!m_editor) return;
  QLineEdit* editor = m_editor;
  m_editor = nullptr;
  editor->removeEventFilter(this);
  const QString text = editor->text();
  editor->hide();
  editor->deleteLater();
  m_view->setFocus();
  if (!take || !editor->isModified()) return;
  const auto value = typedValue(m_document->design(), *m_edited, text);
  if (!value)
    emit refused(said(value.error(), m_document->design().settings.unit));
  else
    commit(*m_edited, *value, false);
}

bool SizeTags::eventFilter(QObject*, QEvent* event) {
  if (event->type() == QEvent::FocusOut) closeEditor(true);
  if (event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter || key == Qt::Key_Escape) {
      closeEditor(key != Qt::Key_Escape);
      return true;
    }
  }
  return false;
}

} // namespace hinge
