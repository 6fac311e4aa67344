// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/paper_brush.h"
#include <QBuffer>
#include <QCache>
#include <QImage>
#include <QImageReader>
#include <QMutex>
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

/// How large one repeat of what is printed is.
QSizeF repeatOf(const Paper& paper, const QImage& image) {
  if (paper.print) {
    const PatternTile tile = tileOf(*paper.print);
    return {tile.width_mm, tile.height_mm};
  }
  return {paper.picture->width_mm, paper.picture->width_mm * image.height() / image.width()};
}

/// The picture as large as it will be seen, read no larger than that where its kind allows it; what
/// cannot be read is a grey sheet.
QImage pictureImage(const Picture& picture, double pixelsPerMm) {
  constexpr int kMostMemory_MB = 2048; // a photo of 50 megapixels with 16 bits a colour takes 400
  QImageReader::setAllocationLimit(kMostMemory_MB);
  QByteArray bytes =
      QByteArray::fromRawData(picture.bytes.data(), static_cast<qsizetype>(picture.bytes.size()));
  QBuffer buffer(&bytes);
  QImageReader reader(&buffer);
  const int width =
      std::clamp(static_cast<int>(std::lround(picture.width_mm * pixelsPerMm)), 1, 4096);
  const QSize whole = reader.size();
  if (whole.isValid() && width < whole.width())
    reader.setScaledSize(
        {width,
         std::max(1, static_cast<int>(std::lround(1.0 * width * whole.height() / whole.width())))});
  QImage image = reader.read();
  if (image.isNull()) {
    image = QImage(8, 8, QImage::Format_RGB32);
    image.fill(Qt::gray);
  }
  return image.convertToFormat(QImage::Format_RGB32);
}

QImage tileImage(const Paper& paper, double pixelsPerMm) {
  static QMutex one; // files are written beside the window's thread
  const QMutexLocker lock(&one);
  static QCache<QString, QImage> kept(64);
  const QString name = paper.print ? nameOf(paper, pixelsPerMm)
                                   : QStringLiteral("%1 %2 %3")
                                         .arg(std::hash<std::string>()(paper.picture->bytes))
                                         .arg(paper.picture->width_mm)
                                         .arg(pixelsPerMm);
  if (const QImage* known = kept.object(name)) return *known;
  if (!paper.print) {
    const QImage image = pictureImage(*paper.picture, pixelsPerMm);
    kept.insert(name, new QImage(image));
    return image;
  }
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
  if (paper.patterned() && !back) {
    const QImage one =
        tileImage(paper, 1).scaled(1, 1, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
    colour = one.pixelColor(0, 0);
  }
  if (paper.surface == Surface::Film) colour.setAlphaF(kFilm);
  return colour;
}

QBrush paperBrush(const Paper& paper, bool back, double pixelsPerMm) {
  if (!paper.patterned() || back) return meanColour(paper, back);
  const QImage image = tileImage(paper, inSteps(pixelsPerMm));
  const QSizeF repeat = repeatOf(paper, image);
  QBrush brush(image);
  brush.setTransform(QTransform(repeat.width() / image.width(), 0, 0,
                                -repeat.height() / image.height(), 0, repeat.height()));
  return brush;
}

} // namespace hinge
