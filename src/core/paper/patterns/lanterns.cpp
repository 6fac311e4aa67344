// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"

namespace hinge::patterns {

/// Lanterns scattered on cords, each with its caps; the second ink is that of caps and cords.
PatternTile lanterns(double repeat_mm, double share) {
  const double r = repeat_mm, wide = 0.36 * share * r, tall = 0.44 * share * r;
  PatternTile tile{r, r, {}};
  for (const Vec2& at : {Vec2(0.25 * r, 0.30 * r), Vec2(0.75 * r, 0.80 * r)}) {
    tile.shapes.push_back({bar(at.x() - 0.01 * r, at.y() + tall, 0.02 * r, r - 2 * tall), 1});
    tile.shapes.push_back({oval(at, wide, tall), 0});
    for (const double side : {-1.0, 1.0})
      tile.shapes.push_back(
          {bar(at.x() - 0.5 * wide, at.y() + side * 0.95 * tall - 0.025 * r, wide, 0.05 * r), 1});
  }
  return tile;
}

} // namespace hinge::patterns
