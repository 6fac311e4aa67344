// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/vectors.h"
#include "core/units/length.h"
#include <QFont>
#include <QMarginsF>
#include <QPageSize>
#include <QPointF>
#include <algorithm>

namespace hinge {

// Printed pages are painted in dots: a painter in millimetres would lose thin pens and fonts to
// rounding, so everything is mapped explicitly.

constexpr int kDotsPerInch = 1200;
constexpr double kDotsPerMm = kDotsPerInch / kMillimetresPerInch;
/// Patterns are images: 300 dots to an inch are as fine as printers show.
constexpr double kPrintDotsPerMm = 300 / kMillimetresPerInch;

inline QPointF dots(double x_mm, double y_mm) {
  return {x_mm * kDotsPerMm, y_mm * kDotsPerMm};
}
inline QFont fontOf(double size_mm, int weight = QFont::Normal) {
  QFont font(QStringLiteral("Lato"));
  font.setPixelSize(std::max(1, static_cast<int>(size_mm * kDotsPerMm)));
  font.setWeight(static_cast<QFont::Weight>(weight));
  return font;
}
inline QPageSize exactPage(const Vec2& size_mm) {
  return QPageSize(QSizeF(size_mm.x(), size_mm.y()), QPageSize::Millimeter, QString(),
                   QPageSize::ExactMatch);
}

} // namespace hinge
