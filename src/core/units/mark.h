// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cmath>

namespace hinge {

/// The mark on a ruler nearest to a length, and how far the length lies beyond it.
struct Mark {
  double at_mm = 0, off_mm = 0;
  /// No hand sets the difference.
  bool exact() const { return std::abs(off_mm) < 0.02; }
};
inline Mark nearestMark(double length_mm, double step_mm) {
  const double at = std::round(length_mm / step_mm) * step_mm;
  return {at, length_mm - at};
}

} // namespace hinge
