// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/look.h"
#include "app/stage_view.h"
#include <cmath>

// What lies over the card on the stage: beads of seats and badges of findings, where they are and
// which one the pointer is on.

namespace hinge {

QPointF StageView::seatPoint(const Seat& seat) const {
  const SeatSide& side = seat.sides[0];
  if (seat.kind() == SeatKind::Face) return panelPoint(side.panel);
  if (seat.kind() == SeatKind::Span)
    return 0.5 * (panelPoint(seat.sides[0].panel) + panelPoint(seat.sides[1].panel));
  const Vec3 flat = side.toPiece * Vec3(0, 0.5 * seat.length_mm, 0);
  return screenOf(side.panel, flat.head<2>()).value_or(QPointF(-1000, -1000));
}

std::optional<QPointF> StageView::badgePlace(const Finding& finding) const {
  for (const std::string& key : finding.elements) {
    PanelIndex panel = m_assembly->findPanel(key);
    if (!panel.valid())
      for (PanelIndex p : m_assembly->panels.indices())
        if (m_assembly->panels[p].owner && m_assembly->panels[p].owner->text() == key &&
            m_assembly->panels[p].use == PanelUse::Wall) {
          panel = p;
          break;
        }
    if (panel.valid() && m_pose.placed[panel]) return panelPoint(panel);
  }
  return std::nullopt;
}

int StageView::badgeAt(const QPointF& point) const {
  const auto analysis = m_analyst->current();
  if (!analysis) return -1;
  for (std::size_t k = 0; k < analysis->findings.size(); ++k)
    if (const auto place = badgePlace(analysis->findings[k]);
        place && QLineF(*place, point).length() < 12)
      return static_cast<int>(k);
  return -1;
}

int StageView::seatAt(const QPointF& point) const {
  int best = -1;
  double nearest = 15;
  for (SeatIndex s : m_assembly->seats.indices()) {
    if (m_assembly->seats[s].kind() == SeatKind::Face) continue;
    const double d = QLineF(seatPoint(m_assembly->seats[s]), point).length();
    if (d < nearest) nearest = d, best = s.value;
  }
  return best >= 0 ? best : faceAt(point);
}

int StageView::faceAt(const QPointF& point) const {
  const PanelIndex panel = panelAt(point);
  if (!panel.valid()) return -1;
  // The face is seen when the outline, anticlockwise on the paper, is so on the screen (whose y
  // points down).
  QPolygonF outline;
  for (const Vec2& c : m_assembly->panels[panel].outline.rim)
    outline << *screenOf(panel, c);
  double area = 0;
  for (int k = 0; k < outline.size(); ++k) {
    const QPointF &a = outline[k], &b = outline[(k + 1) % outline.size()];
    area += a.x() * b.y() - b.x() * a.y();
  }
  const std::string key = m_assembly->panels[panel].key + (area < 0 ? "" : "-back");
  for (SeatIndex s : m_assembly->seats.indices())
    if (m_assembly->seats[s].key == key) return s.value;
  return -1;
}

void StageView::paintSeats(QPainter& painter) const {
  const QColor amber = Theme::night().accent;
  for (SeatIndex s : m_assembly->seats.indices()) {
    const Seat& seat = m_assembly->seats[s];
    const bool hot = s.value == m_hoveredSeat;
    if (seat.kind() == SeatKind::Face) {
      if (!hot) continue;
      QPolygonF outline;
      for (const Vec2& c : m_assembly->panels[seat.sides[0].panel].outline.rim)
        outline << *screenOf(seat.sides[0].panel, c);
      QColor wash = amber;
      wash.setAlphaF(0.28f);
      painter.setBrush(QBrush(wash, Qt::BDiagPattern));
      painter.setPen(QPen(amber, 2));
      painter.drawPolygon(outline);
      continue;
    }
    // A span is drawn from page to page.
    const bool span = seat.kind() == SeatKind::Span;
    const auto end = [&](double y) {
      return screenOf(seat.sides[0].panel, (seat.sides[0].toPiece * Vec3(0, y, 0)).head<2>());
    };
    const auto from = span ? std::optional(panelPoint(seat.sides[0].panel)) : end(0),
               to = span ? std::optional(panelPoint(seat.sides[1].panel)) : end(seat.length_mm);
    if (!from || !to) continue;
    QColor line = amber;
    line.setAlphaF(hot ? 1.0f : 0.6f);
    painter.setPen(QPen(line, hot ? 3.5 : 2, Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(*from, *to);
    const QPointF middle = seatPoint(seat);
    painter.setBrush(hot ? amber : QColor(0x2a, 0x27, 0x35));
    painter.setPen(QPen(amber, 1.5));
    painter.drawEllipse(middle, hot ? 11 : 8, hot ? 11 : 8);
    painter.setPen(QPen(hot ? QColor(0x24, 0x1a, 0x0e) : amber, 1.8));
    painter.drawLine(middle - QPointF(4, 0), middle + QPointF(4, 0));
    painter.drawLine(middle - QPointF(0, 4), middle + QPointF(0, 4));
  }
  if (m_hoveredSeat < 0) return;
  const Seat& seat = m_assembly->seats[SeatIndex(m_hoveredSeat)];
  const QString text = tr("%1, %2").arg(
      words(seat.label),
      QString::fromStdString(formatLength(seat.length_mm, m_document->design().settings.unit)));
  painter.setFont(Look::font(13, QFont::DemiBold));
  const QRectF box(seatPoint(seat) + QPointF(16, -14),
                   QSizeF(QFontMetricsF(painter.font()).horizontalAdvance(text) + 18, 26));
  painter.setPen(Qt::NoPen);
  painter.setBrush(QColor(0x1a, 0x18, 0x22, 230));
  painter.drawRoundedRect(box, 6, 6);
  painter.setPen(Look::theme().stageInk);
  painter.drawText(box, Qt::AlignCenter, text);
}

void StageView::paintBadges(QPainter& painter) const {
  const auto analysis = m_analyst->current();
  if (!analysis || m_adding) return;
  painter.setFont(Look::font(12, QFont::Bold));
  for (std::size_t k = 0; k < analysis->findings.size(); ++k) {
    const auto place = badgePlace(analysis->findings[k]);
    if (!place) continue;
    const bool shown = static_cast<int>(k) == m_shownFinding,
               spoils = analysis->findings[k].severity == Severity::Spoils;
    painter.setPen(QPen(shown ? QColor(Qt::white) : QColor(0x2a, 0x18, 0x18), shown ? 2.5 : 1.2));
    painter.setBrush(spoils ? QColor(0xf0, 0x86, 0x86) : QColor(0xe6, 0xc3, 0x62));
    // What spoils the card is a diamond, advice a disc.
    if (spoils)
      painter.drawPolygon(QPolygonF({*place + QPointF(0, -13), *place + QPointF(13, 0),
                                     *place + QPointF(0, 13), *place + QPointF(-13, 0)}));
    else
      painter.drawEllipse(*place, 10, 10);
    painter.setPen(QColor(0x2a, 0x18, 0x18));
    painter.drawText(QRectF(place->x() - 12, place->y() - 12, 24, 24), Qt::AlignCenter,
                     QString::number(k + 1));
  }
}

} // namespace hinge
