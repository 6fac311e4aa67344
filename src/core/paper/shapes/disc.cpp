// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A disc, flattened below by the detail.
Region disc(double detail) {
  const double cut = 60 * (detail - 0.5);
  if (cut <= 0) return arc({0, 0}, 0.5, 0.5, 0, 352.5, 47);
  return arc({0, 0}, 0.5, 0.5, -90 + cut, 270 - cut, 47);
}

} // namespace hinge::shapes
