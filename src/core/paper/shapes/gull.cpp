// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A gull that glides; the detail is how far its wings are raised.
Region gull(double detail) {
  const double tip = -0.1 + 0.6 * detail;
  return bothSides(
      {{0, -0.5}, {0.09, -0.2}, {0.28, 0.25}, {0.5, tip}, {0.3, 0.5}, {0.1, 0.2}, {0, 0.05}});
}

} // namespace hinge::shapes
