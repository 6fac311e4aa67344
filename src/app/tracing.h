// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/geom/polygon.h"
#include <QImage>
#include <QPainter>
#include <QTransform>
#include <optional>

namespace hinge {

/// A photograph or scan of a paper template that lies under the sheet, to be traced. Two points of
/// it with a known distance give its scale, and the line through them is turned level. It is seen,
/// not saved.
class Tracing {
public:
  /// Reads a picture; fails with the cause when it is none, or larger than a scan of A3 needs.
  static Result<Tracing> fromFile(const QString& path);

  bool shown() const { return !m_image.isNull(); }
  /// Two points are still wanted, in the flat frame of the sheet as it lies now.
  bool wantsPoints() const { return shown() && m_points.size() < 2; }
  bool wantsDistance() const { return shown() && m_points.size() == 2; }
  void point(const Vec2& onSheet);
  /// The true distance of the two points: scale and turn follow, the first point stays where it is.
  /// False when they are one point or the distance is none.
  bool setDistance(double mm);
  void again() { m_points.clear(); } ///< two other points
  /// From pixels of the picture into the sheet's flat frame.
  const QTransform& toSheet() const { return m_toSheet; }
  Box2 extent() const; ///< of the picture, on the sheet
  const std::vector<Vec2>& points() const { return m_points; }
  /// Moved so that a point of the sheet frame comes to lie on another.
  void move(const Vec2& from, const Vec2& to);
  void paint(QPainter& painter, const QTransform& sheetToPixels) const;

private:
  QImage m_image;
  QTransform m_toSheet;
  std::vector<Vec2> m_points; ///< on the sheet; three of them: it is scaled
};

} // namespace hinge
