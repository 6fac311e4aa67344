// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <array>
#include <string_view>

namespace hinge {

/// Inside size of an envelope, called "envelope.KEY" in words/; the first one is made to measure
/// and fits whatever the shut card needs.
struct EnvelopeSize {
  std::string_view key;
  double long_mm, short_mm;
};

inline const std::array<EnvelopeSize, 7>& knownEnvelopes() {
  static const std::array<EnvelopeSize, 7> all{{{"to-measure", 0, 0},
                                                {"c6", 162, 114},
                                                {"c5", 229, 162},
                                                {"dl", 220, 110},
                                                {"7x5", 184.15, 133.35},
                                                {"square-155", 155, 155},
                                                {"square-220", 220, 220}}};
  return all;
}

/// The envelope of that key, or the one made to measure.
inline const EnvelopeSize& envelopeByKey(std::string_view key) {
  for (const EnvelopeSize& envelope : knownEnvelopes())
    if (envelope.key == key) return envelope;
  return knownEnvelopes().front();
}

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
