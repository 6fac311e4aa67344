// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"

namespace hinge::patterns {

/// Slanted cords that cross, as in a net.
PatternTile lattice(double repeat_mm, double share) {
  const double r = repeat_mm, half = 0.25 * share * r;
  // Each cord runs from corner to corner and a little further, so that its ends meet the next.
  const auto cord = [&](const Vec2& from, const Vec2& to) {
    const Vec2 way = (to - from).normalized(), side(-way.y(), way.x());
    const Vec2 a = from - half * way, b = to + half * way;
    return Polygon{a - half * side, b - half * side, b + half * side, a + half * side};
  };
  return {r, r, {{cord({0, 0}, {r, r})}, {cord({0, r}, {r, 0})}}};
}

} // namespace hinge::patterns
