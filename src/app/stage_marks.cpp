// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/look.h"
#include "app/saying.h"
#include "app/stage_view.h"
#include "core/structures/names.h"
#include <algorithm>
#include <cmath>

// What lies over the card on the stage: beads of seats, badges of findings, letters of panels.

namespace hinge {

/// The line from which places on a face are read, with a dot where it begins.
void StageView::paintStart(QPainter& painter, const Seat& face) const {
  const SeatSide& side = face.sides[0];
  const auto at = [&](double x) {
    return m_scene.onScreen(side.panel, (side.toPiece * Vec3(x, 0, 0)).head<2>());
  };
  const auto from = at(0), to = at(face.length_mm);
  if (!from || !to) return;
  painter.setPen(QPen(Theme::night().accent, 4, Qt::SolidLine, Qt::RoundCap));
  painter.drawLine(*from, *to);
  painter.setBrush(Theme::night().accent);
  painter.drawEllipse(*from, 5, 5);
}

/// Which side of a fold is a, which b.
void StageView::paintSides(QPainter& painter, const Seat& seat) const {
  constexpr double kAway_mm = 14;
  painter.setFont(Look::font(12, QFont::Bold));
  for (std::size_t k : {0u, 1u}) {
    const SeatSide& side = seat.sides[k];
    const Vec3 flat = side.toPiece * Vec3(kAway_mm, 0.5 * seat.length_mm, 0);
    const auto at = m_scene.onScreen(side.panel, flat.head<2>());
    if (!at) continue;
    painter.setPen(Qt::NoPen);
    painter.setBrush(QColor(0x1a, 0x18, 0x22, 210));
    painter.drawEllipse(*at, 10, 10);
    painter.setPen(Theme::night().accent);
    painter.drawText(QRectF(at->x() - 10, at->y() - 10, 20, 20), Qt::AlignCenter,
                     k == 0 ? QStringLiteral("a") : QStringLiteral("b"));
  }
}

void StageView::paintSeats(QPainter& painter) const {
  const QColor amber = Theme::night().accent;
  for (SeatIndex s : assembly()->seats.indices()) {
    const Seat& seat = assembly()->seats[s];
    const bool hot = s == m_hoveredSeat;
    if (seat.kind() == SeatKind::Face) {
      if (!hot) continue;
      QColor wash = amber;
      wash.setAlphaF(0.28f);
      painter.setBrush(QBrush(wash, Qt::BDiagPattern));
      painter.setPen(QPen(amber, 2));
      painter.drawPolygon(m_scene.outlineOf(seat.sides[0].panel));
      paintStart(painter, seat);
      continue;
    }
    // A span is drawn from page to page.
    const bool span = seat.kind() == SeatKind::Span;
    const auto end = [&](double y) {
      return m_scene.onScreen(seat.sides[0].panel,
                              (seat.sides[0].toPiece * Vec3(0, y, 0)).head<2>());
    };
    const auto from = span ? std::optional(m_scene.middleOf(seat.sides[0].panel)) : end(0),
               to = span ? std::optional(m_scene.middleOf(seat.sides[1].panel))
                         : end(seat.length_mm);
    if (!from || !to) continue;
    QColor line = amber;
    line.setAlphaF(hot ? 1.0f : 0.6f);
    painter.setPen(QPen(line, hot ? 3.5 : 2, Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(*from, *to);
    const QPointF middle = m_scene.beadOf(seat);
    painter.setBrush(hot ? amber : QColor(0x2a, 0x27, 0x35));
    painter.setPen(QPen(amber, 1.5));
    painter.drawEllipse(middle, hot ? 11 : 8, hot ? 11 : 8);
    painter.setPen(QPen(hot ? QColor(0x24, 0x1a, 0x0e) : amber, 1.8));
    painter.drawLine(middle - QPointF(4, 0), middle + QPointF(4, 0));
    painter.drawLine(middle - QPointF(0, 4), middle + QPointF(0, 4));
    if (hot && !span) paintSides(painter, seat);
  }
  if (!m_hoveredSeat.valid()) return;
  const Seat& seat = assembly()->seats[m_hoveredSeat];
  const QString text = tr("%1, %2").arg(
      said(seatName(m_document->design(), *assembly(), seat)),
      QString::fromStdString(formatLength(seat.length_mm, m_document->design().settings.unit)));
  painter.setFont(Look::font(13, QFont::DemiBold));
  const QRectF box(m_scene.beadOf(seat) + QPointF(16, -44), // clear of the letters
                   QSizeF(QFontMetricsF(painter.font()).horizontalAdvance(text) + 18, 26));
  painter.setPen(Qt::NoPen);
  painter.setBrush(QColor(0x1a, 0x18, 0x22, 230));
  painter.drawRoundedRect(box, 6, 6);
  painter.setPen(Look::theme().stageInk);
  painter.drawText(box, Qt::AlignCenter, text);
}

/// A disc on the panel at its letter's place or half-way from there to a corner, clear of the
/// sizes; empty when there is no room.
QRectF StageView::roomForLetter(const FlatLabel& label) const {
  std::vector<Vec2> places{label.at};
  for (const Vec2& corner : assembly()->panels[label.panel].outline.rim)
    places.push_back(0.5 * (label.at + corner));
  for (const Vec2& place : places) {
    const auto at = m_scene.onScreen(label.panel, place);
    if (!at || m_scene.panelAt(*at) != label.panel) continue;
    const QRectF disc(*at - QPointF(8, 8), QSizeF(16, 16));
    const auto hides = [&](const auto& tag) { return tag.rect.intersects(disc); };
    if (std::ranges::none_of(m_tags->tags(), hides)) return disc;
  }
  return {};
}

/// The letters of the sheet on the panels of the piece on the bench, at the same places as there,
/// where these are seen.
void StageView::paintLetters(QPainter& painter) const {
  if (m_adding) return;
  painter.setFont(Look::font(11, QFont::DemiBold));
  for (const FlatPiece& piece : *m_scene.shown()->flatPieces()) {
    if (piece.piece != m_lettered) continue;
    for (const FlatLabel& label : piece.labels) {
      if (!label.panel.valid() || assembly()->panels[label.panel].use == PanelUse::Tab) continue;
      const QRectF disc = roomForLetter(label);
      if (disc.isEmpty()) continue;
      painter.setPen(Qt::NoPen);
      painter.setBrush(QColor(0xff, 0xfd, 0xf6, 190));
      painter.drawEllipse(disc);
      painter.setPen(QColor(0x3a, 0x36, 0x48));
      painter.drawText(disc, Qt::AlignCenter,
                       QString::fromStdString(panelLetter(*assembly(), label.panel)));
    }
  }
}

void StageView::paintKnobs(QPainter& painter) const {
  if (m_adding) return;
  for (std::size_t k = 0; k < assembly()->lifts.size(); ++k) {
    const QPointF at = m_scene.knobOf(k);
    painter.setPen(QPen(QColor(0x2a, 0x18, 0x18), 1.2));
    painter.setBrush(QColor(0xff, 0xc8, 0x7a));
    painter.drawEllipse(at, 9, 9);
    // Two strokes, as on a grip.
    for (double y : {-2.5, 2.5})
      painter.drawLine(at + QPointF(-4, y), at + QPointF(4, y));
  }
}

void StageView::paintBadges(QPainter& painter) const {
  const auto analysis = m_analyst->current();
  if (!analysis || m_adding) return;
  painter.setFont(Look::font(12, QFont::Bold));
  for (std::size_t k = 0; k < analysis->findings.size(); ++k) {
    const auto place = m_scene.badgeOf(analysis->findings[k]);
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
