// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"

namespace hinge::patterns {

/// Discs in rows that stand between one another.
PatternTile dots(double repeat_mm, double share) {
  const double radius = 0.5 * share * repeat_mm;
  return {repeat_mm,
          repeat_mm,
          {{disc({0.25 * repeat_mm, 0.25 * repeat_mm}, 0.6 * radius)},
           {disc({0.75 * repeat_mm, 0.75 * repeat_mm}, radius)}}};
}

} // namespace hinge::patterns
