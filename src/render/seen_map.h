// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QImage>
#include <QPainterPath>
#include <QPolygonF>
#include <optional>

namespace hinge {

/// What is seen where in a picture: a coarse raster that is painted along with it, back to front,
/// in which letters and insets find room that nothing else takes.
class SeenMap {
public:
  explicit SeenMap(const QRectF& area);

  static constexpr int kNothing = 0, kTaken = 1, kFirst = 2; ///< numbers of what is seen
  void fill(const QPolygonF& outline, int what);
  void take(const QRectF& box);
  void take(const QPolygonF& line, double width); ///< a stroke over the picture

  struct Spot {
    QPointF at;
    double room = 0; ///< from there to where something else begins
  };
  /// The middle of the widest part of what is seen of something; nothing when none of it is.
  std::optional<Spot> roomiest(int what) const;
  /// What is seen at a point of the picture.
  int at(const QPointF& point) const;
  /// How much of it is seen (square units of the picture).
  double seen(int what) const;
  /// The share of a box in which there is nothing at all.
  double empty(const QRectF& box) const;

private:
  QPointF toMap(const QPointF& p) const { return (p - m_area.topLeft()) * m_scale; }
  QRectF m_area;
  double m_scale;
  QImage m_image;
};

} // namespace hinge
