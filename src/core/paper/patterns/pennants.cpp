// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"

namespace hinge::patterns {

/// Rows of pennants on a line, the inks by turns.
PatternTile pennants(double repeat_mm, double share) {
  const double r = repeat_mm, tall = 1.1 * share * r;
  PatternTile tile{2 * r, 1.4 * r, {}};
  for (std::size_t k = 0; k < 2; ++k) {
    const double x = (0.12 + static_cast<double>(k)) * r, top = r;
    tile.shapes.push_back({{{x, top}, {x + 0.38 * r, top - tall}, {x + 0.76 * r, top}}, k});
  }
  tile.shapes.push_back({bar(0, r, 2 * r, 0.06 * r), 0});
  return tile;
}

} // namespace hinge::patterns
