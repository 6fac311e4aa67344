// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A ring; the detail is how wide its hole is.
Region ring(double detail) {
  const double hole = 0.1 + 0.34 * detail;
  return Region(arc({0, 0}, 0.5, 0.5, 0, 352.5, 47), {arc({0, 0}, hole, hole, 360, 7.5, 47)});
}

} // namespace hinge::shapes
