// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"

namespace hinge::patterns {

/// Stars of several sizes, none in line with the next; the large ones in the second ink.
PatternTile nightSky(double repeat_mm, double share) {
  const double r = repeat_mm;
  struct Place {
    double x, y, size;
    std::size_t ink;
  };
  constexpr Place kPlaces[] = {{0.13, 0.22, 0.09, 1}, {0.62, 0.10, 0.05, 0}, {0.38, 0.51, 0.06, 0},
                               {0.83, 0.42, 0.10, 1}, {0.20, 0.78, 0.05, 0}, {0.57, 0.84, 0.07, 0},
                               {0.91, 0.88, 0.04, 0}, {0.43, 0.13, 0.03, 0}};
  PatternTile tile{r, r, {}};
  for (const Place& place : kPlaces)
    tile.shapes.push_back(
        {star({place.x * r, place.y * r}, (0.5 + share) * place.size * r, 5), place.ink});
  return tile;
}

} // namespace hinge::patterns
