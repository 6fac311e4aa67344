// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/units/length.h"
#include <algorithm>
#include <array>
#include <string>
#include <string_view>

namespace hinge {

/// Inside size of an envelope. The first of those that are known is made to measure and fits
/// whatever the shut card needs. A maker's own has its size in its key: "own-146.05x111.125".
struct EnvelopeSize {
  std::string key;
  double long_mm = 0, short_mm = 0;
};

inline constexpr int kKnownEnvelopes = 12;
const std::array<EnvelopeSize, kKnownEnvelopes>& knownEnvelopes();

/// The envelope of that key, or the one made to measure.
EnvelopeSize envelopeByKey(std::string_view key);
bool isEnvelope(std::string_view key);
/// The key of what a maker says: a known one, or the two inside measures, "5 3/4 x 4 3/8". Fails
/// with what there is to choose from, or with a measure that could not be read.
Result<std::string> envelopeKeyFrom(std::string_view text, LengthUnit unit);
/// "envelope.KEY" in words/; an own one by its measures.
Text nameOf(const EnvelopeSize& envelope);

/// What an envelope must measure inside: `room_mm` on every side and the thickness once.
struct EnvelopeNeed {
  double long_mm, short_mm;
};
inline EnvelopeNeed envelopeFor(double width_mm, double height_mm, double thickness_mm,
                                double room_mm) {
  const auto [small, large] = std::minmax(width_mm, height_mm);
  return {large + thickness_mm + 2 * room_mm, small + thickness_mm + 2 * room_mm};
}

/// How much too small an envelope is (mm); 0 when it fits.
inline double shortfall_mm(const EnvelopeSize& envelope, const EnvelopeNeed& need) {
  if (envelope.long_mm <= 0) return 0;
  return std::max({0.0, need.long_mm - envelope.long_mm, need.short_mm - envelope.short_mm});
}

} // namespace hinge
