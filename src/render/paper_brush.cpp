// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/paper_brush.h"
#include <QCache>
#include <QImage>
#include <QPainter>
#include <cmath>

namespace hinge {
namespace {

constexpr float kFilm = 0.28f; ///< of what film has by way of colour

QPolygonF polygonOf(const Polygon& corners, const QPointF& by) {
  QPolygonF polygon;
  for (const Vec2& corner : corners)
    polygon << QPointF(corner.x(), corner.y()) + by;
  return polygon;
}

/// One repeat and the shapes that reach into it from its neighbours.
void paintTile(QPainter& painter, const PatternTile& tile, const std::vector<Colour>& inks) {
  painter.setPen(Qt::NoPen);
  for (const PatternTile::Shape& shape : tile.shapes) {
    painter.setBrush(toQColor(inks[std::min(shape.ink, inks.size() - 1)]));
    for (int dy = -1; dy <= 1; ++dy)
      for (int dx = -1; dx <= 1; ++dx)
        painter.drawPolygon(
            polygonOf(shape.outline, QPointF(dx * tile.width_mm, dy * tile.height_mm)));
  }
}

QString nameOf(const Paper& paper, double pixelsPerMm) {
  QString name = QStringLiteral("%1 %2 %3 %4 %5")
                     .arg(QString::fromStdString(paper.print->key))
                     .arg(paper.print->repeat_mm)
                     .arg(paper.print->share)
                     .arg(pixelsPerMm)
                     .arg(QString::fromStdString(paper.colours[0].text()));
  for (const Colour& ink : paper.print->inks)
    name += QString::fromStdString(ink.text());
  return name;
}

/// Sizes in steps, so that a card that comes nearer does not want new images all the time.
double inSteps(double pixelsPerMm) {
  return std::clamp(std::exp2(std::ceil(2 * std::log2(std::max(0.1, pixelsPerMm))) / 2), 1.0, 16.0);
}

QImage tileImage(const Paper& paper, double pixelsPerMm) {
  static QCache<QString, QImage> kept(64);
  const QString name = nameOf(paper, pixelsPerMm);
  if (const QImage* known = kept.object(name)) return *known;
  const PatternTile tile = tileOf(*paper.print);
  const int width = std::max(1, static_cast<int>(std::lround(tile.width_mm * pixelsPerMm))),
            height = std::max(1, static_cast<int>(std::lround(tile.height_mm * pixelsPerMm)));
  QImage image(width, height, QImage::Format_RGB32);
  image.fill(toQColor(paper.colours[0]));
  QPainter painter(&image);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.scale(width / tile.width_mm, height / tile.height_mm);
  painter.translate(0, tile.height_mm);
  painter.scale(1, -1);
  paintTile(painter, tile, paper.print->inks);
  painter.end();
  kept.insert(name, new QImage(image));
  return image;
}

} // namespace

QColor toQColor(const Colour& colour) {
  return {colour.red, colour.green, colour.blue};
}

QColor meanColour(const Paper& paper, bool back) {
  QColor colour = toQColor(paper.colours[back ? 1 : 0]);
  if (paper.print && !back) {
    const QImage one = tileImage(paper, 1).scaled(1, 1, Qt::IgnoreAspectRatio,
                                                  Qt::SmoothTransformation);
    colour = one.pixelColor(0, 0);
  }
  if (paper.surface == Surface::Film) colour.setAlphaF(kFilm);
  return colour;
}

QBrush paperBrush(const Paper& paper, bool back, double pixelsPerMm) {
  if (!paper.print || back) return meanColour(paper, back);
  const QImage image = tileImage(paper, inSteps(pixelsPerMm));
  const PatternTile tile = tileOf(*paper.print);
  QBrush brush(image);
  brush.setTransform(QTransform(tile.width_mm / image.width(), 0, 0,
                                -tile.height_mm / image.height(), 0, tile.height_mm));
  return brush;
}

void paintPrint(QPainter& painter, const Print& print, const QRectF& area_mm) {
  const PatternTile tile = tileOf(print);
  constexpr int kMost = 400; // repeats across: more is nothing that a card has
  const int left = static_cast<int>(std::floor(area_mm.left() / tile.width_mm)),
            low = static_cast<int>(std::floor(area_mm.top() / tile.height_mm)),
            right = std::min(left + kMost,
                             static_cast<int>(std::ceil(area_mm.right() / tile.width_mm))),
            high = std::min(low + kMost,
                            static_cast<int>(std::ceil(area_mm.bottom() / tile.height_mm)));
  painter.setPen(Qt::NoPen);
  for (int row = low - 1; row <= high; ++row)
    for (int column = left - 1; column <= right; ++column)
      for (const PatternTile::Shape& shape : tile.shapes) {
        painter.setBrush(toQColor(print.inks[std::min(shape.ink, print.inks.size() - 1)]));
        painter.drawPolygon(
            polygonOf(shape.outline, QPointF(column * tile.width_mm, row * tile.height_mm)));
      }
}

} // namespace hinge
