// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/length.h"
#include "core/units/duration.h"
#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <numeric>
#include <vector>

namespace hinge {
namespace {

struct Cursor {
  std::string_view rest;
  void skipSpaces() {
    while (!rest.empty() && (rest.front() == ' ' || rest.front() == '\t'))
      rest.remove_prefix(1);
  }
  bool take(std::string_view word) {
    if (!rest.starts_with(word)) return false;
    rest.remove_prefix(word.size());
    return true;
  }
  /// Unsigned decimal; a comma is taken as the decimal sign, as many people type it.
  bool number(double& out) {
    std::size_t n = 0;
    while (n < rest.size() && n < 24 &&
           (std::isdigit(static_cast<unsigned char>(rest[n])) || rest[n] == '.' || rest[n] == ','))
      ++n;
    std::string digits(rest.substr(0, n));
    for (char& c : digits)
      if (c == ',') c = '.';
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), out);
    if (error != std::errc() || end != digits.data() + digits.size() || n == 0) return false;
    rest.remove_prefix(n);
    return true;
  }
};

Error unreadable(std::string_view text, const char* sentence) {
  return {{sentence, text.substr(0, 40)}, ""};
}

/// Integer, decimal, or a mixed fraction such as "3 3/4".
bool mixedNumber(Cursor& c, double& out) {
  if (!c.number(out)) return false;
  Cursor after = c;
  after.skipSpaces();
  if (after.take("/")) { // "3/4"
    double below = 0;
    after.skipSpaces();
    if (!after.number(below) || below == 0) return false;
    out /= below;
    c = after;
    return true;
  }
  double above = 0, below = 0;
  Cursor fraction = after;
  fraction.take("-"); // "3-3/4" is written too
  if (fraction.number(above)) {
    fraction.skipSpaces();
    if (!fraction.take("/")) return false;
    fraction.skipSpaces();
    if (!fraction.number(below) || below == 0) return false;
    out += above / below;
    c = fraction;
  }
  return true;
}

} // namespace

std::string_view unitKey(LengthUnit unit) {
  switch (unit) {
  case LengthUnit::Millimetre: return "mm";
  case LengthUnit::Centimetre: return "cm";
  case LengthUnit::Inch: return "in";
  }
  return "mm";
}

Result<LengthUnit> unitFromKey(std::string_view key) {
  for (LengthUnit unit : {LengthUnit::Millimetre, LengthUnit::Centimetre, LengthUnit::Inch})
    if (key == unitKey(unit)) return unit;
  return Error{{"unit.unknown", key.substr(0, 40)}, ""};
}

Result<double> parseLength_mm(std::string_view text, LengthUnit unit) {
  const auto failed = [&] { return unreadable(text, "value.unreadable/length"); };
  Cursor c{text};
  c.skipSpaces();
  const bool negative = c.take("-");
  double value = 0;
  c.skipSpaces();
  if (!mixedNumber(c, value)) return failed();
  c.skipSpaces();
  if (c.take("mm"))
    unit = LengthUnit::Millimetre;
  else if (c.take("cm"))
    unit = LengthUnit::Centimetre;
  else if (c.take("inches") || c.take("inch") || c.take("in") || c.take("\"") || c.take("″"))
    unit = LengthUnit::Inch;
  c.skipSpaces();
  if (!c.rest.empty()) return failed();
  const double length_mm = (negative ? -value : value) * millimetresIn(unit);
  if (!std::isfinite(length_mm)) return failed();
  return length_mm;
}

Result<double> parseAngle_deg(std::string_view text) {
  Cursor c{text};
  c.skipSpaces();
  const bool negative = c.take("-");
  double value = 0;
  if (!mixedNumber(c, value)) return unreadable(text, "value.unreadable/angle");
  c.skipSpaces();
  if (!c.take("degrees") && !c.take("deg")) c.take("°");
  c.skipSpaces();
  if (!c.rest.empty() || !std::isfinite(value)) return unreadable(text, "value.unreadable/angle");
  return negative ? -value : value;
}

Result<double> parseDuration_s(std::string_view text) {
  Cursor c{text};
  c.skipSpaces();
  double value = 0;
  const bool read = mixedNumber(c, value);
  c.skipSpaces();
  double unit_s = 60;
  if (c.take("seconds") || c.take("sec") || c.take("s"))
    unit_s = 1;
  else if (c.take("hours") || c.take("hour") || c.take("h"))
    unit_s = 3600;
  else if (!c.take("minutes") && !c.take("minute"))
    c.take("min");
  c.skipSpaces();
  if (!read || !c.rest.empty() || !std::isfinite(value))
    return unreadable(text, "value.unreadable/duration");
  return unit_s * value;
}

std::string formatNumber(double value, int decimals) {
  std::string text = fmt::format("{:.{}f}", value, decimals);
  if (text.find('.') != std::string::npos) {
    while (text.back() == '0')
      text.pop_back();
    if (text.back() == '.') text.pop_back();
  }
  return text == "-0" ? "0" : text;
}

namespace {

std::string formatInches(double inches) {
  constexpr int kFinest = 64;
  const double scaled = inches * kFinest;
  const long long whole64 = std::llround(scaled);
  // 0.005 mm is far below what hands can cut; anything closer to a fraction is that fraction.
  if (std::abs(scaled - static_cast<double>(whole64)) * kMillimetresPerInch / kFinest > 0.005)
    return formatNumber(inches, 4);
  const long long magnitude = std::llabs(whole64);
  const long long whole = magnitude / kFinest, part = magnitude % kFinest;
  const std::string sign = whole64 < 0 ? "-" : "";
  if (part == 0) return fmt::format("{}{}", sign, whole);
  const long long common = std::gcd(part, static_cast<long long>(kFinest));
  const std::string fraction = fmt::format("{}/{}", part / common, kFinest / common);
  return whole == 0 ? sign + fraction : fmt::format("{}{} {}", sign, whole, fraction);
}

} // namespace

std::string formatLength(double length_mm, LengthUnit unit, bool withUnit) {
  std::string number;
  switch (unit) {
  case LengthUnit::Millimetre: number = formatNumber(length_mm, 2); break;
  case LengthUnit::Centimetre: number = formatNumber(length_mm / 10.0, 3); break;
  case LengthUnit::Inch: number = formatInches(length_mm / kMillimetresPerInch); break;
  }
  return withUnit ? fmt::format("{} {}", number, unitKey(unit)) : number;
}

std::string formatAngle(double angle_deg) {
  return formatNumber(angle_deg, 2) + "°";
}

} // namespace hinge
