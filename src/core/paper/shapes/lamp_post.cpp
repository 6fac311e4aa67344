// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A lamp on its post; the detail is how large the lamp is.
Region lampPost(double detail) {
  const double half = 0.18 + 0.3 * detail;
  return bothSides({{0.22, -0.5},
                    {0.22, -0.46},
                    {0.06, -0.42},
                    {0.06, 0.1},
                    {0.5 * half, 0.12},
                    {half, 0.36},
                    {0.3 * half, 0.46},
                    {0.05, 0.5}});
}

} // namespace hinge::shapes
