// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/picture_rows.h"
#include <QFontMetricsF>
#include <algorithm>

namespace hinge {

void writeName(QPainter& p, double middle, double top, double wide, const std::string& name,
               const MakingStyle& style) {
  p.setFont(style.font(11.5, false));
  p.setPen(style.ink);
  const double room = std::max(wide, 56 * style.unit);
  p.drawText(
      QRectF(middle - 0.5 * room, top, room, kNameLine * style.unit), Qt::AlignCenter,
      QFontMetricsF(p.font()).elidedText(QString::fromStdString(name), Qt::ElideRight, room));
}

double PictureRows::lay(const std::vector<QSizeF>& boxes, std::vector<QPointF>& corners) const {
  double low = 0, high = 100;
  for (int k = 0; k < 40; ++k) {
    const double middle = 0.5 * (low + high);
    (fits(boxes, middle, corners) ? low : high) = middle;
  }
  fits(boxes, low, corners);
  return low;
}

bool PictureRows::fits(const std::vector<QSizeF>& boxes, double scale,
                       std::vector<QPointF>& corners) const {
  corners.assign(boxes.size(), QPointF());
  double y = 0;
  for (std::size_t k = 0; k < boxes.size();) {
    double x = 0, high = 0;
    const std::size_t first = k;
    for (; k < boxes.size(); ++k) {
      const double w = boxes[k].width() * scale;
      if (k > first && x + w > m_area.width()) break;
      corners[k] = QPointF(x, y);
      x += w + m_gap;
      high = std::max(high, boxes[k].height() * scale);
    }
    if (x - m_gap > m_area.width()) return false;
    // Rows stand in the middle.
    for (std::size_t j = first; j < k; ++j)
      corners[j] += QPointF(0.5 * (m_area.width() - x + m_gap), 0);
    y += high + m_text + m_gap;
  }
  const double down = 0.5 * (m_area.height() - y + m_gap);
  if (down < 0) return false;
  for (QPointF& corner : corners)
    corner += m_area.topLeft() + QPointF(0, down);
  return true;
}

} // namespace hinge
