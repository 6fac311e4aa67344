// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"
#include "core/units/length.h"
#include <cmath>

namespace hinge::shapes {

Polygon arc(const Vec2& middle, double halfWidth, double halfHeight, double from_deg, double to_deg,
            int steps) {
  Polygon points;
  for (int k = 0; k <= steps; ++k) {
    const double angle = radians(from_deg + (to_deg - from_deg) * k / steps);
    points.push_back(middle + Vec2(halfWidth * std::cos(angle), halfHeight * std::sin(angle)));
  }
  return points;
}

Polygon joined(std::initializer_list<Polygon> parts) {
  Polygon whole;
  for (const Polygon& part : parts)
    whole.insert(whole.end(), part.begin(), part.end());
  return whole;
}

Polygon bothSides(const Polygon& rightHalf) {
  Polygon whole = rightHalf;
  for (auto corner = rightHalf.rbegin(); corner != rightHalf.rend(); ++corner)
    if (corner->x() > 1e-9) whole.emplace_back(-corner->x(), corner->y());
  return whole;
}

} // namespace hinge::shapes
