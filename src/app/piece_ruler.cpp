// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/piece_ruler.h"
#include "app/look.h"
#include "app/saying.h"
#include "render/flat_painter.h"
#include "words/tables.h"
#include <QPainter>
#include <cmath>

namespace hinge {

PieceRuler::PieceRuler(Document* document, QWidget* parent)
    : QWidget(parent), m_document(document) {
  setAccessibleName(tr("Piece on the ruler"));
  setMinimumHeight(150);
}

void PieceRuler::show(const FlatPiece& piece, const PieceTable& table, const Bench& bench) {
  m_piece = piece, m_table = table, m_bench = bench;
  m_measure.reset();
  update();
}

void PieceRuler::clear() {
  m_piece.reset(), m_measure.reset();
  update();
}

std::optional<PieceRuler::Measure> PieceRuler::measureOf(const ScoreSetting& score, int column,
                                                         std::size_t row) const {
  if (score.way == ScoreSetting::Way::Slanted)
    return Measure{score.from, score.to, score.length_mm};
  const Eigen::Index axis = score.way == ScoreSetting::Way::Upright ? 0 : 1;
  const bool right = axis == 0 && m_bench.first == FirstEdge::Right;
  const double size = m_table.size[axis],
               at = right ? size - score.first_mm : score.first_mm; // from the left or from below
  double from = right ? size : 0;
  if (column == 2) from = right ? 0 : size;
  if (column == 3 && row > 0 && m_table.scores[row - 1].way == score.way)
    from = right ? size - m_table.scores[row - 1].first_mm : m_table.scores[row - 1].first_mm;
  // In the middle of what is scored.
  const double beside =
      score.stretches.empty()
          ? 0.5 * m_table.size[1 - axis]
          : 0.5 * (score.stretches.front().from_mm + score.stretches.front().to_mm);
  Measure measure;
  measure.from[axis] = from, measure.to[axis] = at;
  measure.from[1 - axis] = measure.to[1 - axis] = beside;
  measure.length_mm = std::abs(at - from);
  return measure;
}

void PieceRuler::measure(int row, int column) {
  m_measure.reset();
  const auto place = static_cast<std::size_t>(row);
  if (row >= 0 && place < m_table.scores.size() && column >= 1)
    m_measure = measureOf(m_table.scores[place], column, place);
  else if (row >= 0 && place - m_table.scores.size() < m_table.cuts.size() && column >= 1) {
    const CutMark& cut = m_table.cuts[place - m_table.scores.size()];
    const Vec2 at = column == 2 ? cut.to : cut.from;
    m_measure = Measure{Vec2(0, at.y()), at, at.x()};
  }
  update();
}

void PieceRuler::paintRuler(QPainter& p, const QRectF& along, double scale) const {
  const Theme& theme = Look::theme();
  const LengthUnit unit = m_document->design().settings.unit;
  // Ticks that are still apart; numbers that do not run into one another.
  const bool inches = unit == LengthUnit::Inch;
  const std::vector<double> steps =
      inches ? std::vector{1.0 / 16, 1.0 / 8, 0.25, 0.5, 1.0, 2.0, 4.0, 12.0}
             : std::vector{1.0, 5.0, 10.0, 50.0, 100.0, 500.0, 1000.0};
  const auto apart = [&](double px) {
    const double inch = inches ? kMillimetresPerInch : 1;
    for (double step : steps)
      if (step * inch * scale >= px) return step * inch;
    return steps.back() * inch;
  };
  const double fine = apart(3), whole = apart(9), told = std::max(whole, apart(30));
  p.setPen(QPen(theme.inkSoft, 1));
  p.setFont(Look::font(11));
  p.drawLine(along.topLeft(), along.topRight());
  const double length = along.width() / scale;
  for (int k = 0; k * fine <= length + 1e-6; ++k) {
    const double at = k * fine, x = along.left() + at * scale;
    const bool isWhole = std::abs(std::remainder(at, whole)) < 1e-6;
    p.drawLine(QPointF(x, along.top()), QPointF(x, along.top() + (isWhole ? 8 : 4)));
    if (std::abs(std::remainder(at, told)) < 1e-6)
      p.drawText(QRectF(x - 30, along.top() + 8, 60, 14), Qt::AlignCenter,
                 asQt(formatLength(at, unit, false)));
  }
}

void PieceRuler::paintMeasure(QPainter& p, const QTransform& to) const {
  if (!m_measure) return;
  const Theme& theme = Look::theme();
  const QPointF from = to.map(QPointF(m_measure->from.x(), m_measure->from.y())),
                end = to.map(QPointF(m_measure->to.x(), m_measure->to.y()));
  p.setPen(QPen(theme.accent, 2.5));
  p.drawLine(from, end);
  QPointF across = end - from;
  const double length = std::hypot(across.x(), across.y());
  if (length > 1) {
    across = QPointF(-across.y(), across.x()) * (7 / length);
    p.drawLine(from - across, from + across);
    p.drawLine(end - across, end + across);
  }
  const LengthUnit unit = m_document->design().settings.unit;
  const QString text = asQt(sayMark(m_measure->length_mm, stepOf_mm(m_bench, unit), unit)) +
                       QLatin1Char(' ') + asQt(unitKey(unit));
  p.setFont(Look::font(14, QFont::DemiBold));
  const QRectF wide = p.fontMetrics().boundingRect(text);
  QRectF box(0, 0, wide.width() + 14, 22);
  box.moveCenter(0.5 * (from + end) + QPointF(0, -16));
  box.moveLeft(std::clamp(box.left(), 2.0, std::max(2.0, width() - box.width() - 2)));
  p.setPen(Qt::NoPen);
  p.setBrush(theme.accent);
  p.drawRoundedRect(box, 4, 4);
  p.setPen(theme.accentInk);
  p.drawText(box, Qt::AlignCenter, text);
}

void PieceRuler::paintEvent(QPaintEvent*) {
  const auto assembled = m_document->snapshot()->assembly();
  if (!m_piece || !assembled ||
      static_cast<std::size_t>(m_piece->piece.value) >= (*assembled)->pieces.size())
    return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Vec2 size = m_piece->bounds.size();
  constexpr double kSides_px = 14, kTop_px = 22, kRuler_px = 34;
  const double scale = std::min((width() - 2 * kSides_px) / std::max(1.0, size.x()),
                                (height() - kTop_px - kRuler_px) / std::max(1.0, size.y()));
  const double left = 0.5 * (width() - size.x() * scale), top = kTop_px;
  const QTransform fromCorner(scale, 0, 0, -scale, left, top + size.y() * scale);
  FlatStyle style;
  style.theme = Look::theme();
  style.lineWidth_px = 1.1;
  style.marks = false;
  const QTransform toPixels =
      QTransform::fromTranslate(-m_piece->bounds.low.x(), -m_piece->bounds.low.y()) * fromCorner;
  paintFlatPiece(p, **assembled, *m_piece, toPixels, style);
  constexpr double kLegible = 1; // pixels a millimetre
  if (scale > kLegible)
    paintLabels(p, m_document->design(), **assembled, *m_piece, toPixels, scale, style.theme.cut);
  paintRuler(p, QRectF(left, top + size.y() * scale + 6, size.x() * scale, 20), scale);
  paintMeasure(p, fromCorner);
}

} // namespace hinge
