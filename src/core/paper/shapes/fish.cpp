// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A fish; the detail is how broad its tail is.
Region fish(double detail) {
  const double tail = 0.12 + 0.38 * detail;
  return joined({arc({-0.1, 0}, 0.4, 0.5, 20, 340, 32), {{0.5, -tail}, {0.42, 0}, {0.5, tail}}});
}

} // namespace hinge::shapes
