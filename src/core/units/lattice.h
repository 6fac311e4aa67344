// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/units/length.h"
#include <cmath>

// The maker's lattice: the steps in which sizes are set by hand, dragged, searched and proposed.

namespace hinge {

/// Half a millimetre, a sixteenth of an inch, half a degree.
constexpr double kLattice_mm = 0.5, kLatticeInch_mm = kMillimetresPerInch / 16, kLattice_deg = 0.5;

constexpr double latticeStep_mm(LengthUnit unit) {
  return unit == LengthUnit::Inch ? kLatticeInch_mm : kLattice_mm;
}
/// The nearest value on a lattice.
inline double onLattice(double value, double step = kLattice_mm) {
  return std::round(value / step) * step;
}
/// The largest value on a lattice that is not above.
inline double downToLattice(double value, double step = kLattice_mm) {
  return std::floor(value / step) * step;
}

} // namespace hinge
