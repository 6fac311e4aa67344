// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A plate with rounded corners; the detail is how round they are.
Region tag(double detail) {
  const double r = 0.02 + 0.46 * detail, x = 0.5 - r, y = 0.5 - r;
  return joined({arc({x, -y}, r, r, -90, 0), arc({x, y}, r, r, 0, 90), arc({-x, y}, r, r, 90, 180),
                 arc({-x, -y}, r, r, 180, 270)});
}

} // namespace hinge::shapes
