// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A barge from the side with its cabin; the detail is how high that stands.
Region boat(double detail) {
  const double deck = -0.1, roof = deck + 0.15 + 0.45 * detail;
  return joined(
      {arc({-0.2, deck}, 0.3, 0.4, 200, 270, 8),
       arc({0.2, deck}, 0.3, 0.4, 270, 355, 8),
       {{0.5, 0.08}, {0.24, deck}, {0.16, roof}, {-0.22, roof}, {-0.26, deck}, {-0.48, 0.0}}});
}

} // namespace hinge::shapes
