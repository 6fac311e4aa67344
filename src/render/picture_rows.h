// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "render/making_style.h"
#include <QPainter>
#include <string>
#include <vector>

namespace hinge {

constexpr double kNameLine = 18; ///< height of the line with a name, in the picture's units

/// A piece's name in a line below it, as long as there is room.
void writeName(QPainter& p, double middle, double top, double wide, const std::string& name,
               const MakingStyle& style);

/// Boxes in rows, as large as they can be in an area; every one with a line of text below it.
class PictureRows {
public:
  PictureRows(const QRectF& area, double text, double gap)
      : m_area(area), m_text(text), m_gap(gap) {}

  /// The scale, and the upper left corner of each box.
  double lay(const std::vector<QSizeF>& boxes, std::vector<QPointF>& corners) const;

private:
  bool fits(const std::vector<QSizeF>& boxes, double scale, std::vector<QPointF>& corners) const;

  QRectF m_area;
  double m_text, m_gap;
};

} // namespace hinge
