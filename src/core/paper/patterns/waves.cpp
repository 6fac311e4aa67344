// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"
#include "core/units/length.h"
#include <cmath>

namespace hinge::patterns {

/// Lines of water that swing evenly.
PatternTile waves(double repeat_mm, double share) {
  constexpr double kFlat = 0.6; // height of a row, of its width
  const double height = kFlat * repeat_mm;
  const auto swing = [](double at) { return std::sin(2 * kPi * at); };
  return {repeat_mm,
          height,
          {{ribbon(repeat_mm, 0.6 * share * height, swing, 0.5 * height, 0.22 * height)}}};
}

} // namespace hinge::patterns
