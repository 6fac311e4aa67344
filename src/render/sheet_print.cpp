// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/sheet_print.h"
#include "render/paper_brush.h"
#include <cmath>

namespace hinge {
namespace {

constexpr double kShortest_mm = 6; ///< of an edge that gets marks
constexpr double kAtOutline_mm = 0.2;

void tick(QPainter& painter, const Vec2& end, const Vec2& outwards, const QTransform& toHere) {
  const Vec2 from = end + (kBleed_mm + 0.5) * outwards, to = from + (kTick_mm - 0.5) * outwards;
  painter.drawLine(toHere.map(QPointF(from.x(), from.y())), toHere.map(QPointF(to.x(), to.y())));
}

} // namespace

void paintPrint(QPainter& painter, const Design& design, const CutPart& part,
                const PartPlace& place, bool back, const QTransform& toPixels, double pixelsPerMm) {
  const Paper& paper = design.paperNamed(part.paper);
  const QTransform toHere = toSheet(place) * toPixels;
  painter.save();
  painter.setTransform(toHere, true);
  const QBrush brush = paperBrush(paper, back, pixelsPerMm);
  for (const Region& region : offset(part.outline, kBleed_mm, CornerStyle::Sharp)) {
    QPainterPath path = toPath(region, QTransform());
    path.setFillRule(Qt::OddEvenFill);
    painter.fillPath(path, brush);
  }
  painter.restore();
}

void paintCutLines(QPainter& painter, const CutPart& part, const PartPlace& place,
                   const QTransform& toPixels, const FlatStyle& style) {
  const QTransform toHere = toSheet(place) * toPixels;
  painter.setBrush(Qt::NoBrush);
  const auto draw = [&](const FlatLine& line, const QPen& pen) {
    painter.setPen(pen);
    const QPolygonF corners = toPolygon(line.corners, toHere);
    line.closed ? painter.drawPolygon(corners) : painter.drawPolyline(corners);
  };
  QColor light = Qt::white;
  light.setAlphaF(0.75f);
  for (const FlatLine& line : part.flat.lines)
    draw(line, QPen(light, 3 * style.lineWidth_px));
  for (const FlatLine& line : part.flat.lines)
    draw(line, linePen(line.kind, style.theme, style.lineWidth_px));
}

void paintTicks(QPainter& painter, const CutPart& part, const PartPlace& place,
                const QTransform& toPixels, const FlatStyle& style) {
  const QTransform toHere = toSheet(place) * toPixels;
  const Polygon& rim = part.outline.rim;
  for (const FlatLine& line : part.flat.lines) {
    if (line.kind == LineKind::Cut || line.corners.size() < 2) continue;
    painter.setPen(linePen(line.kind, style.theme, style.lineWidth_px));
    const Vec2 &a = line.corners.front(), &b = line.corners.back();
    const Vec2 along = (b - a).normalized();
    const Region outer(rim);
    if (distanceToOutline(outer, a) < kAtOutline_mm) tick(painter, a, -along, toHere);
    if (distanceToOutline(outer, b) < kAtOutline_mm) tick(painter, b, along, toHere);
  }
  painter.setPen(linePen(LineKind::Cut, style.theme, style.lineWidth_px));
  for (std::size_t k = 0; k < rim.size(); ++k) {
    const Vec2 &a = rim[k], &b = rim[(k + 1) % rim.size()];
    if ((b - a).norm() < kShortest_mm) continue;
    const Vec2 along = (b - a).normalized();
    // Marks that would lie on the part itself say nothing.
    const Vec2 before = a - kBleed_mm * along, behind = b + kBleed_mm * along;
    if (!contains(part.outline, before)) tick(painter, a, -along, toHere);
    if (!contains(part.outline, behind)) tick(painter, b, along, toHere);
  }
}

} // namespace hinge
