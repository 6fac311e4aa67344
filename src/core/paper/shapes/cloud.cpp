// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A cloud; the detail is how much its heaps stand out.
Region cloud(double detail) {
  const double r = 0.16 + 0.08 * detail;
  return joined({{{-0.36, -0.5}, {0.36, -0.5}},
                 arc({0.5 - r, -0.5 + r}, r, r, -60, 95, 10),
                 arc({0.08, 0.5 - 1.5 * r}, 1.2 * r, 1.5 * r, 5, 150, 12),
                 arc({-0.5 + 1.1 * r, -0.5 + 1.2 * r}, 1.1 * r, 1.2 * r, 80, 250, 12)});
}

} // namespace hinge::shapes
