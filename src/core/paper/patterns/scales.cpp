// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/patterns/shapes.h"
#include <cmath>

namespace hinge::patterns {

/// Rows of rounded slates, drawn by their edges.
PatternTile scales(double repeat_mm, double share) {
  constexpr double kFlat = 0.5;
  const double row = kFlat * repeat_mm;
  // The lower edge of a slate: half an ellipse that hangs.
  const auto hang = [](double at) {
    const double x = 2 * at - 1;
    return -std::sqrt(std::max(0.0, 1 - x * x));
  };
  PatternTile tile{repeat_mm, 2 * row, {}};
  for (int k = 0; k < 2; ++k) {
    Polygon edge = ribbon(repeat_mm, 0.35 * share * row, hang, (k + 1) * row, 0.9 * row);
    for (Vec2& corner : edge)
      corner.x() += k * 0.5 * repeat_mm;
    tile.shapes.push_back({std::move(edge)});
  }
  return tile;
}

} // namespace hinge::patterns
