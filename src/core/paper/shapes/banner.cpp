// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A band with two tails; the detail is how deep they are cut in.
Region banner(double detail) {
  const double in = 0.5 - 0.4 * detail;
  return Region{{-0.5, -0.5}, {0.5, -0.5}, {in, 0}, {0.5, 0.5}, {-0.5, 0.5}, {-in, 0}};
}

} // namespace hinge::shapes
