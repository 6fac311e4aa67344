// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/tracing.h"
#include "core/units/length.h"
#include <QImageReader>
#include <cmath>

namespace hinge {
namespace {

constexpr int kMostPixels = 60'000'000, kUsualDpi = 150;
constexpr double kFaint = 0.75, kLeast_mm = 1;

} // namespace

Result<Tracing> Tracing::fromFile(const QString& path) {
  QImageReader reader(path);
  reader.setAutoTransform(true);
  const QSize size = reader.size();
  if (!size.isValid()) return Error{"picture.none", path.toStdString()};
  if (qint64(size.width()) * size.height() > kMostPixels)
    return Error{{"picture.large", kMostPixels / 1'000'000}, path.toStdString()};
  Tracing made;
  made.m_image = reader.read();
  if (made.m_image.isNull()) return Error{"picture.none", path.toStdString()};
  // Until it is scaled it lies as a usual scan would, from the corner of the sheet upwards.
  const double mm = kMillimetresPerInch / kUsualDpi;
  made.m_toSheet = QTransform(mm, 0, 0, -mm, 0, mm * made.m_image.height());
  return made;
}

Box2 Tracing::extent() const {
  const QRectF box = m_toSheet.mapRect(QRectF(m_image.rect()));
  Box2 extent;
  extent.add(Vec2(box.left(), box.top()));
  extent.add(Vec2(box.right(), box.bottom()));
  return extent;
}

void Tracing::point(const Vec2& onSheet) {
  if (wantsPoints()) m_points.push_back(onSheet);
}

bool Tracing::setDistance(double mm) {
  if (m_points.size() != 2 || !(mm >= kLeast_mm)) return false;
  const Vec2 way = m_points[1] - m_points[0];
  if (way.norm() < 1e-6) return false;
  const double scale = mm / way.norm(), turn = std::atan2(way.y(), way.x());
  QTransform fit;
  fit.translate(m_points[0].x(), m_points[0].y());
  fit.scale(scale, scale);
  fit.rotateRadians(-turn);
  fit.translate(-m_points[0].x(), -m_points[0].y());
  m_toSheet = m_toSheet * fit;
  m_points[1] = m_points[0] + Vec2(mm, 0);
  m_points.push_back(m_points[1]); // no more are wanted
  return true;
}

void Tracing::move(const Vec2& from, const Vec2& to) {
  const Vec2 by = to - from;
  m_toSheet = m_toSheet * QTransform::fromTranslate(by.x(), by.y());
  for (Vec2& p : m_points)
    p += by;
}

void Tracing::paint(QPainter& painter, const QTransform& sheetToPixels) const {
  painter.save();
  painter.setRenderHint(QPainter::SmoothPixmapTransform);
  painter.setOpacity(kFaint);
  painter.setTransform(m_toSheet * sheetToPixels, true);
  painter.drawImage(0, 0, m_image);
  painter.restore();
}

} // namespace hinge
