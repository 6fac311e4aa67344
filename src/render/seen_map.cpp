// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/seen_map.h"
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kAcross = 260; ///< cells over the picture's longer side

QColor colourOf(int what) {
  return QColor::fromRgb(static_cast<QRgb>(what) | 0xff000000u);
}
int whatIs(QRgb pixel) {
  return static_cast<int>(pixel & 0xffffffu);
}

} // namespace

SeenMap::SeenMap(const QRectF& area)
    : m_area(area), m_scale(kAcross / std::max(1.0, std::max(area.width(), area.height()))),
      m_image(std::max(1, static_cast<int>(area.width() * m_scale)),
              std::max(1, static_cast<int>(area.height() * m_scale)), QImage::Format_RGB32) {
  m_image.fill(colourOf(kNothing));
}

void SeenMap::fill(const QPolygonF& outline, int what) {
  QPolygonF there;
  for (const QPointF& p : outline)
    there << toMap(p);
  QPainter painter(&m_image);
  painter.setPen(Qt::NoPen);
  painter.setBrush(colourOf(what));
  painter.drawPolygon(there);
}

void SeenMap::take(const QRectF& box) {
  QPainter painter(&m_image);
  painter.fillRect(QRectF(toMap(box.topLeft()), box.size() * m_scale), colourOf(kTaken));
}

void SeenMap::take(const QPolygonF& line, double width) {
  QPolygonF there;
  for (const QPointF& p : line)
    there << toMap(p);
  QPainter painter(&m_image);
  painter.setPen(QPen(colourOf(kTaken), width * m_scale));
  painter.drawPolyline(there);
}

std::optional<SeenMap::Spot> SeenMap::roomiest(int what) const {
  const int w = m_image.width(), h = m_image.height();
  // Steps to the nearest cell of something else, in two sweeps; slanted steps count 1.4.
  std::vector<float> far(static_cast<std::size_t>(w) * static_cast<std::size_t>(h), 0);
  const auto at = [&](int x, int y) -> float& {
    return far[static_cast<std::size_t>(y) * static_cast<std::size_t>(w) +
               static_cast<std::size_t>(x)];
  };
  const auto get = [&](int x, int y) { return x < 0 || y < 0 || x >= w || y >= h ? 0 : at(x, y); };
  for (int y = 0; y < h; ++y) {
    const auto* line = reinterpret_cast<const QRgb*>(m_image.constScanLine(y));
    for (int x = 0; x < w; ++x)
      if (whatIs(line[x]) == what)
        at(x, y) = std::min({get(x - 1, y) + 1, get(x, y - 1) + 1, get(x - 1, y - 1) + 1.4f,
                             get(x + 1, y - 1) + 1.4f});
  }
  Spot best;
  for (int y = h - 1; y >= 0; --y)
    for (int x = w - 1; x >= 0; --x) {
      if (at(x, y) <= 0) continue;
      at(x, y) = std::min({at(x, y), get(x + 1, y) + 1, get(x, y + 1) + 1, get(x + 1, y + 1) + 1.4f,
                           get(x - 1, y + 1) + 1.4f});
      if (at(x, y) > best.room) best = {QPointF(x + 0.5, y + 0.5), static_cast<double>(at(x, y))};
    }
  if (best.room <= 0) return std::nullopt;
  return Spot{m_area.topLeft() + best.at / m_scale, best.room / m_scale};
}

int SeenMap::at(const QPointF& point) const {
  const QPoint cell = toMap(point).toPoint();
  return m_image.rect().contains(cell) ? whatIs(m_image.pixel(cell)) : kNothing;
}

double SeenMap::seen(int what) const {
  double cells = 0;
  for (int y = 0; y < m_image.height(); ++y) {
    const auto* line = reinterpret_cast<const QRgb*>(m_image.constScanLine(y));
    cells += static_cast<double>(
        std::count_if(line, line + m_image.width(), [&](QRgb q) { return whatIs(q) == what; }));
  }
  return cells / (m_scale * m_scale);
}

double SeenMap::empty(const QRectF& box) const {
  const QRect there =
      QRectF(toMap(box.topLeft()), box.size() * m_scale).toAlignedRect() & m_image.rect();
  double all = 0, free = 0;
  for (int y = there.top(); y <= there.bottom(); ++y) {
    const auto* line = reinterpret_cast<const QRgb*>(m_image.constScanLine(y));
    for (int x = there.left(); x <= there.right(); ++x)
      all += 1, free += whatIs(line[x]) == kNothing ? 1 : 0;
  }
  return all > 0 ? free / all : 0;
}

} // namespace hinge
