// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include <numbers>
#include <string>
#include <string_view>

namespace hinge {

constexpr double kPi = std::numbers::pi;
constexpr double kMillimetresPerInch = 25.4;
constexpr double radians(double degrees) {
  return degrees * kPi / 180.0;
}
constexpr double degrees(double radians) {
  return radians * 180.0 / kPi;
}

/// The unit in which a person reads and types lengths. Inside the program every length is in
/// millimetres.
enum class LengthUnit { Millimetre, Centimetre, Inch };

constexpr double millimetresIn(LengthUnit unit) {
  return unit == LengthUnit::Inch         ? kMillimetresPerInch
         : unit == LengthUnit::Centimetre ? 10.0
                                          : 1.0;
}

std::string_view unitKey(LengthUnit unit); ///< "mm", "cm", "in"
Result<LengthUnit> unitFromKey(std::string_view key);

/// Reads a length as people write it: `95`, `95mm`, `9.5 cm`, `3.75in`, `3 3/4`, `3 3/4"`, `1/2
/// in`, `-2,5 mm`. A number without a unit is in `unit`; returns millimetres. Fails with what could
/// not be read.
Result<double> parseLength_mm(std::string_view text, LengthUnit unit);

/// Reads an angle in degrees: `45`, `45.5 deg`, `45°`.
Result<double> parseAngle_deg(std::string_view text);

/// Writes a length in the unit, shortest form that is exact to 0.005 mm: `38`, `38.25`, `3 3/4`.
/// Inches use fractions down to 1/64 where the length is one, decimals otherwise. `withUnit`
/// appends the unit.
std::string formatLength(double length_mm, LengthUnit unit, bool withUnit = true);

/// Writes an angle in degrees with at most two decimals and the degree sign.
std::string formatAngle(double angle_deg);

/// Plain decimal with at most `decimals` places, without trailing zeros and without "-0".
std::string formatNumber(double value, int decimals);

} // namespace hinge
