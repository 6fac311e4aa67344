// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A star of five points; the detail is how deep it is cut.
Region star(double detail) {
  const double inner = 0.42 - 0.3 * detail;
  Polygon rim;
  for (int k = 0; k < 5; ++k) {
    rim.push_back(arc({0, 0}, 0.5, 0.5, 90 + 72 * k, 90, 1).front());
    rim.push_back(arc({0, 0}, inner, inner, 126 + 72 * k, 90, 1).front());
  }
  return rim;
}

} // namespace hinge::shapes
