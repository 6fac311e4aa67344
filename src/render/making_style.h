// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QColor>
#include <QFont>
#include <QPainter>
#include <QRectF>

namespace hinge {

/// How pictures of the work are drawn: ink on paper, one colour for what is new, told apart by the
/// strength of lines as well.
struct MakingStyle {
  double unit = 1; ///< a hair of the picture; lines and letters go by it
  QColor ink{0x2a, 0x26, 0x2e}, soft{0x8b, 0x86, 0x8c};
  QColor paper{0xfb, 0xf9, 0xf5},
      shade{0xd6, 0xd0, 0xc8}; ///< of what lies there, to and off the light
  QColor fresh{0xff, 0xd9, 0x9e}, freshShade{0xe3, 0x9c, 0x4c};
  QColor glue{0x1f, 0x5f, 0x6b};
  QColor move{0xa8, 0x3a, 0x14};

  explicit MakingStyle(const QRectF& area)
      : unit(std::max(0.1, std::min(area.width(), 1.35 * area.height()) / 460)) {}
  QFont font(double size = 13, bool bold = true) const {
    QFont f(QStringLiteral("Lato"));
    f.setPixelSize(std::max(1, static_cast<int>(size * unit + 0.5)));
    f.setWeight(bold ? QFont::DemiBold : QFont::Normal);
    return f;
  }
};

/// A way with an arrow's head at its end, light round it so that it is seen over everything.
void paintWay(QPainter& painter, const QPolygonF& way, const MakingStyle& style);
/// An hourglass with the time beside it.
void paintHourglass(QPainter& painter, const QPointF& at, const QString& time,
                    const MakingStyle& style);
/// A block that weighs down what it stands on.
void paintWeight(QPainter& painter, const QPointF& foot, const MakingStyle& style);
/// Letters with light round them.
void paintLetters(QPainter& painter, const QPointF& middle, const QString& text,
                  const MakingStyle& style, double size = 13);

} // namespace hinge
