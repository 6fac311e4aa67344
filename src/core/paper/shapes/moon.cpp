// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A sickle; the detail is how thin it is.
Region moon(double detail) {
  const double inner = 0.12 + 0.38 * detail;
  return joined({arc({0, 0}, 0.5, 0.5, 60, 300, 36), arc({0.25, 0}, inner, 0.42, 270, 90, 28)});
}

} // namespace hinge::shapes
