// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/units/length.h"
#include <cmath>
#include <string_view>

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

/// The unit that a typed length names; another one when it names none.
inline LengthUnit unitNamedIn(std::string_view text, LengthUnit otherwise) {
  if (text.find("mm") != std::string_view::npos) return LengthUnit::Millimetre;
  if (text.find("cm") != std::string_view::npos) return LengthUnit::Centimetre;
  const bool inches =
      text.find("in") != std::string_view::npos || text.find('"') != std::string_view::npos;
  return inches ? LengthUnit::Inch : otherwise;
}

} // namespace hinge
