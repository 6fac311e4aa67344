// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"

namespace hinge::patterns {

/// Square tiles with a lozenge in each, the inks by turns.
PatternTile tiles(double repeat_mm, double share) {
  const double r = repeat_mm, half = 0.48 * share * r;
  PatternTile tile{2 * r, 2 * r, {}};
  for (int row = 0; row < 2; ++row)
    for (int column = 0; column < 2; ++column) {
      const Vec2 at((column + 0.5) * r, (row + 0.5) * r);
      tile.shapes.push_back(
          {{at - Vec2(half, 0), at - Vec2(0, half), at + Vec2(half, 0), at + Vec2(0, half)},
           static_cast<std::size_t>((row + column) % 2)});
    }
  return tile;
}

} // namespace hinge::patterns
