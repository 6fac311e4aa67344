// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"

namespace hinge::patterns {

/// Upright bands, as an awning has them.
PatternTile stripes(double repeat_mm, double share) {
  return {repeat_mm, repeat_mm, {{bar(0, 0, share * repeat_mm, repeat_mm)}}};
}

} // namespace hinge::patterns
