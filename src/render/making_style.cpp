// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/making_style.h"
#include <QFontMetricsF>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

double lengthOf(const QPolygonF& way) {
  double sum = 0;
  for (int k = 0; k + 1 < way.size(); ++k)
    sum += QLineF(way[k], way[k + 1]).length();
  return sum;
}

/// A way without its last part.
QPolygonF shortened(QPolygonF way, double by) {
  while (way.size() > 1) {
    const QLineF last(way[way.size() - 2], way.back());
    if (last.length() > by) {
      way.back() = last.pointAt(1 - by / last.length());
      return way;
    }
    by -= last.length();
    way.removeLast();
  }
  return way;
}

} // namespace

void paintWay(QPainter& painter, const QPolygonF& way, const MakingStyle& style) {
  const double length = lengthOf(way);
  if (way.size() < 2 || length < 4 * style.unit) return;
  const double head = std::min(15 * style.unit, 0.6 * length);
  const QPolygonF shaft = shortened(way, 0.8 * head);
  const QLineF last(shaft.back(), way.back());
  const QPointF along = (last.p2() - last.p1()) / std::max(1e-9, last.length());
  const QPointF aside(-along.y(), along.x());
  const QPolygonF tip{way.back(), way.back() - head * along + 0.42 * head * aside,
                      way.back() - head * along - 0.42 * head * aside};
  painter.save();
  painter.setBrush(Qt::NoBrush);
  for (const auto& [colour, wider] :
       {std::pair{QColor(Qt::white), 3.2 * style.unit}, std::pair{style.move, 0.0}}) {
    painter.setPen(QPen(colour, 4 * style.unit + wider, Qt::SolidLine, Qt::FlatCap, Qt::RoundJoin));
    painter.drawPolyline(shaft);
    painter.setPen(wider > 0 ? QPen(colour, wider, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin)
                             : QPen(Qt::NoPen));
    painter.setBrush(colour);
    painter.drawPolygon(tip);
    painter.setBrush(Qt::NoBrush);
  }
  painter.restore();
}

void paintHourglass(QPainter& painter, const QPointF& at, const QString& time,
                    const MakingStyle& style) {
  const double w = 15 * style.unit, h = 22 * style.unit;
  const auto point = [&](double x, double y) { return at + QPointF(x * w, y * h); };
  painter.save();
  painter.setPen(QPen(style.ink, 1.8 * style.unit, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
  painter.setBrush(QColor(Qt::white));
  painter.drawPolygon(QPolygonF{point(-1, -1), point(1, -1), point(0.12, 0), point(1, 1),
                                point(-1, 1), point(-0.12, 0)});
  painter.setBrush(style.ink);
  painter.drawPolygon(QPolygonF{point(-0.62, 1), point(0, 0.45), point(0.62, 1)});
  painter.drawPolygon(QPolygonF{point(-0.5, -0.5), point(0.5, -0.5), point(0, 0)});
  painter.setFont(style.font(16));
  const QFontMetricsF metrics(painter.font());
  painter.drawText(
      at + QPointF(-w - 8 * style.unit - metrics.horizontalAdvance(time), 0.35 * metrics.ascent()),
      time);
  painter.restore();
}

void paintWeight(QPainter& painter, const QPointF& foot, const MakingStyle& style) {
  const double w = 30 * style.unit, h = 30 * style.unit;
  const auto point = [&](double x, double y) { return foot + QPointF(x * w, -y * h); };
  painter.save();
  painter.setPen(QPen(style.ink, 1.8 * style.unit, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
  painter.setBrush(style.shade);
  painter.drawPolygon(QPolygonF{point(-1, 0), point(1, 0), point(0.72, 1), point(-0.72, 1)});
  painter.setBrush(Qt::NoBrush);
  painter.drawEllipse(point(0, 1.22), 0.24 * w, 0.22 * h);
  painter.restore();
}

void paintLetters(QPainter& painter, const QPointF& middle, const QString& text,
                  const MakingStyle& style, double size) {
  QPainterPath path;
  path.addText(0, 0, style.font(size), text);
  const QRectF box = path.boundingRect();
  path.translate(middle - box.center());
  painter.save();
  painter.setPen(
      QPen(QColor(255, 255, 255, 220), 3 * style.unit, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
  painter.setBrush(Qt::NoBrush);
  painter.drawPath(path);
  painter.fillPath(path, style.ink);
  painter.restore();
}

} // namespace hinge
