// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"

namespace hinge::patterns {

/// Boards side by side, with joints that do not line up.
PatternTile planks(double repeat_mm, double share) {
  const double wide = repeat_mm, tall = 4 * repeat_mm, gap = 0.2 * share * repeat_mm;
  PatternTile tile{2 * wide, tall, {}};
  tile.shapes.push_back({bar(0, 0, gap, tall)});
  tile.shapes.push_back({bar(wide, 0, gap, tall)});
  tile.shapes.push_back({bar(0, 0.3 * tall, wide, gap)});
  tile.shapes.push_back({bar(wide, 0.8 * tall, wide, gap)});
  return tile;
}

} // namespace hinge::patterns
