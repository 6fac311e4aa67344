// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/flat_painter.h"
#include "core/structures/names.h"
#include "render/paper_brush.h"
#include "words/words.h"
#include <QFontMetricsF>
#include <algorithm>
#include <cmath>

namespace hinge {

QPen linePen(LineKind kind, const Theme& theme, double width_px) {
  QPen pen(kind == LineKind::Cut        ? theme.cut
           : kind == LineKind::Mountain ? theme.mountain
                                        : theme.valley,
           width_px);
  pen.setCosmetic(false);
  pen.setJoinStyle(Qt::RoundJoin);
  if (kind == LineKind::Mountain) {
    pen.setCapStyle(Qt::FlatCap);
    pen.setDashPattern({9, 2.2, 1.4, 2.2, 1.4, 2.2}); // in line widths
  } else if (kind == LineKind::Valley) {
    pen.setCapStyle(Qt::RoundCap);
    pen.setWidthF(width_px * 1.35);
    pen.setDashPattern({0.01, 2.6});
  }
  return pen;
}

QString lineName(LineKind kind) {
  switch (kind) {
  case LineKind::Cut: return QStringLiteral("cut");
  case LineKind::Mountain: return QStringLiteral("mountain");
  case LineKind::Valley: return QStringLiteral("valley");
  }
  return {};
}

QPolygonF toPolygon(const std::vector<Vec2>& corners, const QTransform& transform) {
  QPolygonF polygon;
  for (const Vec2& c : corners)
    polygon << transform.map(QPointF(c.x(), c.y()));
  return polygon;
}

QPainterPath toPath(const Region& region, const QTransform& transform) {
  QPainterPath path;
  for (const Polygon* ring : ringsOf(region)) {
    path.addPolygon(toPolygon(*ring, transform));
    path.closeSubpath();
  }
  return path;
}

void hatch(QPainter& painter, const QPainterPath& area, const QColor& colour, double gap,
           double width) {
  painter.setPen(QPen(colour, width));
  const QList<QPolygonF> rings = area.toSubpathPolygons();
  const QRectF r = area.boundingRect();
  // Strokes run along x + y = level; where they cross the rings they begin and end. No clipping:
  // there is none in SVG files.
  for (double level = r.left() + r.top() + 0.5 * gap; level < r.right() + r.bottom();
       level += gap) {
    std::vector<double> at;
    for (const QPolygonF& ring : rings)
      for (int k = 0; k < ring.size(); ++k) {
        const QPointF &a = ring[k], &b = ring[(k + 1) % ring.size()];
        const double da = a.x() + a.y() - level, db = b.x() + b.y() - level;
        if ((da > 0) != (db > 0)) at.push_back(a.x() + (b.x() - a.x()) * da / (da - db));
      }
    std::ranges::sort(at);
    for (std::size_t k = 0; k + 1 < at.size(); k += 2)
      painter.drawLine(QPointF(at[k], level - at[k]), QPointF(at[k + 1], level - at[k + 1]));
  }
}

void paintCross(QPainter& painter, const Region& outline, const QTransform& toPixels,
                const QPen& pen, double most_mm) {
  const Box2 box = boundsOf(outline);
  const double half = std::min(most_mm, 0.3 * box.size().minCoeff());
  const Vec2 middle = centroidOf(outline);
  if (!contains(outline, middle)) return;
  painter.setPen(pen);
  for (double side : {-1.0, 1.0})
    painter.drawLine(toPixels.map(QPointF(middle.x() - half, middle.y() - side * half)),
                     toPixels.map(QPointF(middle.x() + half, middle.y() + side * half)));
}

namespace {
constexpr float kVeil = 0.72f; ///< over papers under the lines of a flat piece
} // namespace

void paintCoats(QPainter& painter, std::span<const Coat> coats, const QTransform& toPixels) {
  const double scale = std::sqrt(std::abs(toPixels.determinant()));
  for (const Coat& coat : coats) {
    painter.save();
    painter.setTransform(toPixels, true);
    QBrush brush = paperBrush(coat.paper, coat.back, scale);
    if (brush.style() == Qt::TexturePattern) brush.setTransform(brush.transform() * coat.pattern);
    painter.fillPath(coat.outline, brush);
    painter.restore();
  }
}

void paintFlatPiece(QPainter& painter, const Assembly& assembly, const FlatPiece& piece,
                    const QTransform& toPixels, const FlatStyle& style) {
  if (style.fillSheet) {
    painter.setPen(Qt::NoPen);
    painter.setBrush(style.theme.sheet);
    for (PanelIndex p : assembly.pieces[piece.piece].panels) {
      painter.drawPath(toPath(assembly.panels[p].outline, toPixels));
      if (!style.look) continue;
      paintCoats(painter, style.look->coats(p, false), toPixels);
      // A veil keeps lines and letters legible on dark papers.
      QColor veil = style.theme.sheet;
      veil.setAlphaF(kVeil);
      painter.setBrush(veil);
      painter.drawPath(toPath(assembly.panels[p].outline, toPixels));
      painter.setBrush(style.theme.sheet);
    }
    // Cover the hairlines between neighbouring fills.
    painter.setPen(QPen(style.theme.sheet, 1.0));
    if (!style.look)
      for (const FlatLine& line : piece.lines)
        if (line.kind != LineKind::Cut) painter.drawPolyline(toPolygon(line.corners, toPixels));
  }
  const double unit = style.lineWidth_px;
  if (style.glue)
    for (const FlatArea& area : piece.glue) {
      QColor tint = style.theme.glue;
      tint.setAlphaF(0.75f);
      hatch(painter, toPath(area.outline, toPixels), tint, 4.2 * unit, 0.75 * unit);
    }
  if (style.marks) {
    QPen pen(style.theme.mark, 0.8 * unit);
    pen.setDashPattern({2.5, 2.5});
    painter.setPen(pen);
    painter.setBrush(Qt::NoBrush);
    for (const FlatArea& area : piece.marks)
      painter.drawPath(toPath(area.outline, toPixels));
  }
  painter.setBrush(Qt::NoBrush);
  for (LineKind kind : {LineKind::Valley, LineKind::Mountain, LineKind::Cut}) {
    painter.setPen(linePen(kind, style.theme, unit));
    for (const FlatLine& line : piece.lines) {
      if (line.kind != kind) continue;
      const QPolygonF corners = toPolygon(line.corners, toPixels);
      if (line.closed)
        painter.drawPolygon(corners);
      else
        painter.drawPolyline(corners);
    }
  }
}

void paintLabels(QPainter& painter, const Design& design, const Assembly& assembly,
                 const FlatPiece& piece, const QTransform& toPixels, double pixelsPerMm,
                 const QColor& colour) {
  painter.setPen(colour);
  constexpr double kLeast_px = 11; // on a screen the sheets are small, their letters must not be
  const bool turned = std::abs(toPixels.m12()) > std::abs(toPixels.m11());
  std::vector<QRectF> written; // where sheets are small, a letter gives way to the name
  for (const FlatLabel& label : piece.labels) {
    std::string text = label.panel.valid() ? panelLetter(assembly, label.panel)
                                           : say(pieceName(design, assembly, label.piece));
    if (!label.panel.valid() && piece.part > 0) text += " " + std::to_string(piece.part);
    const auto lettering =
        letteringOf(label, text.size(), std::max(kLabelHeight_mm, kLeast_px / pixelsPerMm));
    if (!lettering) continue;
    QFont font(QStringLiteral("Lato"));
    font.setPixelSize(
        std::max(1, static_cast<int>(std::lround(lettering->height_mm * pixelsPerMm))));
    painter.setFont(font);
    const QPointF at = toPixels.map(QPointF(label.at.x(), label.at.y()));
    const bool upwards = !label.panel.valid() && lettering->upwards != turned;
    const QSizeF size = QFontMetricsF(font).tightBoundingRect(QString::fromStdString(text)).size();
    const QSizeF lies = upwards ? size.transposed() : size;
    const QRectF takes(at - QPointF(0.5 * lies.width(), 0.5 * lies.height()), lies);
    if (std::ranges::any_of(written, [&](const QRectF& r) { return r.intersects(takes); }))
      continue;
    written.push_back(takes);
    painter.save();
    painter.translate(at);
    if (upwards) painter.rotate(-90);
    const double far = 1000 * pixelsPerMm;
    painter.drawText(QRectF(-far, -far, 2 * far, 2 * far), Qt::AlignCenter,
                     QString::fromStdString(text));
    painter.restore();
  }
}

} // namespace hinge
