// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/shapes/shapes.h"

namespace hinge::shapes {

/// A leaf on its stalk; the detail is how broad it is.
Region leaf(double detail) {
  const double half = 0.2 + 0.3 * detail;
  return bothSides({{0.03, -0.5},
                    {0.03, -0.36},
                    {0.6 * half, -0.2},
                    {half, 0.02},
                    {0.8 * half, 0.25},
                    {0.4 * half, 0.42},
                    {0, 0.5}});
}

} // namespace hinge::shapes
