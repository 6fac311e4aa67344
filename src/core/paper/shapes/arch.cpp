// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A gate that is open below; the detail is how wide.
Region arch(double detail) {
  const double open = 0.12 + 0.28 * detail, spring = 0.1;
  return joined({{{0.5, -0.5}},
                 arc({0, spring}, 0.5, 0.4, 0, 180, 24),
                 {{-0.5, -0.5}, {-open, -0.5}},
                 arc({0, spring}, open, 0.8 * open, 180, 0, 24),
                 {{open, -0.5}}});
}

} // namespace hinge::shapes
