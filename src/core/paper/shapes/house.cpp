// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// The front of a house on the quay; the detail is how steep its gable is.
Region house(double detail) {
  const double eaves = 0.5 - 0.1 - 0.4 * detail;
  const Polygon rim = bothSides({{0.5, -0.5},
                                 {0.5, eaves},
                                 {0.3, eaves + 0.35 * (0.5 - eaves)},
                                 {0.3, eaves + 0.6 * (0.5 - eaves)},
                                 {0.12, 0.5}});
  // Holes run the other way round.
  const Polygon door{{-0.12, -0.36}, {-0.12, -0.1}, {0.12, -0.1}, {0.12, -0.36}};
  return Region(rim, {door});
}

} // namespace hinge::shapes
