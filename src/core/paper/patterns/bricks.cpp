// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"

namespace hinge::patterns {

/// Courses of bricks, each half a brick aside of the one below; the joints are inked.
PatternTile bricks(double repeat_mm, double share) {
  const double wide = repeat_mm, course = 0.5 * repeat_mm, gap = 0.25 * share * repeat_mm;
  return {wide,
          2 * course,
          {{bar(0, 0, wide, gap)},
           {bar(0, course, wide, gap)},
           {bar(0, 0, gap, course)},
           {bar(0.5 * wide, course, gap, course)}}};
}

} // namespace hinge::patterns
