// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"

namespace hinge::patterns {

/// Blades that rise and lean; some carry a head in the second ink.
PatternTile reeds(double repeat_mm, double share) {
  const double r = repeat_mm, thick = 0.10 * (0.5 + share) * r;
  PatternTile tile{r, 1.6 * r, {}};
  const auto blade = [&](double x, double y, double lean, double tall) {
    tile.shapes.push_back({{{x - 0.5 * thick, y}, {x + 0.5 * thick, y}, {x + lean, y + tall}}, 0});
  };
  blade(0.20 * r, 0.10 * r, 0.12 * r, 1.1 * r);
  blade(0.50 * r, 0.70 * r, -0.10 * r, 0.8 * r);
  blade(0.78 * r, 0.30 * r, 0.06 * r, 1.0 * r);
  tile.shapes.push_back({oval({0.32 * r, 1.20 * r}, 0.7 * thick, 1.6 * thick), 1});
  tile.shapes.push_back({oval({0.84 * r, 1.28 * r}, 0.7 * thick, 1.6 * thick), 1});
  return tile;
}

} // namespace hinge::patterns
