// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A paper lantern with its caps; the detail is how round its belly is.
Region lantern(double detail) {
  const double belly = 0.26 + 0.24 * detail, neck = 0.16;
  Polygon right{{0.06, -0.5}, {0.06, -0.44}, {neck, -0.44}, {neck, -0.38}};
  const Polygon side = arc({neck, 0}, belly - neck, 0.36, -85, 85, 14);
  right.insert(right.end(), side.begin(), side.end());
  for (const Vec2& corner : {Vec2(neck, 0.38), Vec2(neck, 0.44), Vec2(0.05, 0.44), Vec2(0.05, 0.5)})
    right.push_back(corner);
  return bothSides(right);
}

} // namespace hinge::shapes
