// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A strip of water; the detail is how high it swells.
Region wave(double detail) {
  constexpr int kSwells = 3;
  const double high = 0.15 + 0.35 * detail, width = 1.0 / kSwells;
  Polygon rim{{-0.5, -0.5}, {0.5, -0.5}, {0.5, 0.5 - high}};
  for (int k = kSwells - 1; k >= 0; --k) {
    // Each rises slowly and breaks at once.
    const double left = -0.5 + k * width;
    rim.emplace_back(left + 0.75 * width, 0.5);
    rim.emplace_back(left + 0.55 * width, 0.5 - 0.1 * high);
    rim.emplace_back(left + 0.3 * width, 0.5 - 0.6 * high);
    rim.emplace_back(left, 0.5 - high);
  }
  return rim;
}

} // namespace hinge::shapes
