// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A parasol on its stick; the detail is how flat its roof is.
Region parasol(double detail) {
  const double roof = 0.65 - 0.35 * detail, edge = 0.5 - roof;
  return joined({{{0.03, -0.5}, {0.03, edge}},
                 {{0.25, edge + 0.06}},
                 arc({0, edge}, 0.5, roof, 0, 180, 24),
                 {{-0.25, edge + 0.06}},
                 {{-0.03, edge}, {-0.03, -0.5}}});
}

} // namespace hinge::shapes
