// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"
#include "core/units/length.h"
#include <cmath>

namespace hinge::patterns {

Polygon bar(double x, double y, double width_mm, double height_mm) {
  return {{x, y}, {x + width_mm, y}, {x + width_mm, y + height_mm}, {x, y + height_mm}};
}

Polygon disc(const Vec2& middle, double radius_mm) {
  return oval(middle, radius_mm, radius_mm);
}

Polygon oval(const Vec2& middle, double halfWidth_mm, double halfHeight_mm) {
  constexpr int kCorners = 24;
  Polygon round;
  for (int k = 0; k < kCorners; ++k) {
    const double angle = 2 * kPi * k / kCorners;
    round.push_back(middle + Vec2(halfWidth_mm * std::cos(angle), halfHeight_mm * std::sin(angle)));
  }
  return round;
}

Polygon star(const Vec2& middle, double radius_mm, int points) {
  constexpr double kInner = 0.42; // of the outer radius
  Polygon corners;
  for (int k = 0; k < 2 * points; ++k) {
    const double angle = 0.5 * kPi + kPi * k / points,
                 radius = k % 2 == 0 ? radius_mm : kInner * radius_mm;
    corners.push_back(middle + radius * Vec2(std::cos(angle), std::sin(angle)));
  }
  return corners;
}

Polygon ribbon(double width_mm, double thickness_mm, double (*curve)(double share), double base_mm,
               double swing_mm) {
  constexpr int kSteps = 24;
  Polygon below, above;
  for (int k = 0; k <= kSteps; ++k) {
    const double share = static_cast<double>(k) / kSteps;
    const Vec2 at(share * width_mm, base_mm + swing_mm * curve(share));
    below.push_back(at - Vec2(0, 0.5 * thickness_mm));
    above.push_back(at + Vec2(0, 0.5 * thickness_mm));
  }
  below.insert(below.end(), above.rbegin(), above.rend());
  return below;
}

} // namespace hinge::patterns
