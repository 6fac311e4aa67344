// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/envelope.h"
#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <optional>

namespace hinge {
namespace {

constexpr std::string_view kOwn = "own-";
constexpr double kLargest_mm = 2000;

bool isSize(double mm) {
  return mm >= 1 && mm <= kLargest_mm;
}

std::optional<EnvelopeSize> ownEnvelope(std::string_view key) {
  if (!key.starts_with(kOwn)) return std::nullopt;
  const std::string_view sizes = key.substr(kOwn.size());
  EnvelopeSize own{std::string(key)};
  const char* const end = sizes.data() + sizes.size();
  const auto first = std::from_chars(sizes.data(), end, own.long_mm);
  if (first.ec != std::errc() || first.ptr == end || *first.ptr != 'x') return std::nullopt;
  const auto second = std::from_chars(first.ptr + 1, end, own.short_mm);
  if (second.ec != std::errc() || second.ptr != end) return std::nullopt;
  if (!isSize(own.long_mm) || !isSize(own.short_mm) || own.short_mm > own.long_mm)
    return std::nullopt;
  return own;
}

} // namespace

const std::array<EnvelopeSize, kKnownEnvelopes>& knownEnvelopes() {
  // Those in inches by their inside.
  static const std::array<EnvelopeSize, kKnownEnvelopes> all{{{"to-measure"},
                                                              {"c6", 162, 114},
                                                              {"c5", 229, 162},
                                                              {"dl", 220, 110},
                                                              {"7x5", 184.15, 133.35},
                                                              {"square-155", 155, 155},
                                                              {"square-220", 220, 220},
                                                              {"a2", 146.05, 111.125},
                                                              {"a6-inch", 165.1, 120.65},
                                                              {"a7-inch", 184.15, 133.35},
                                                              {"no-10", 241.3, 104.775},
                                                              {"square-6", 152.4, 152.4}}};
  return all;
}

EnvelopeSize envelopeByKey(std::string_view key) {
  for (const EnvelopeSize& envelope : knownEnvelopes())
    if (envelope.key == key) return envelope;
  return ownEnvelope(key).value_or(knownEnvelopes().front());
}

bool isEnvelope(std::string_view key) {
  return envelopeByKey(key).key == key;
}

Result<std::string> envelopeKeyFrom(std::string_view text, LengthUnit unit) {
  if (isEnvelope(text)) return std::string(text);
  const auto cross = text.find('x');
  if (cross == std::string_view::npos || !std::isdigit(static_cast<unsigned char>(text.front()))) {
    std::string all;
    for (const EnvelopeSize& envelope : knownEnvelopes())
      all += envelope.key + ", ";
    return Error{{"envelope.unknown", text, all.substr(0, all.size() - 2)}, "envelope"};
  }
  double sizes[2] = {0, 0};
  for (int k : {0, 1}) {
    const auto length =
        parseLength_mm(k == 0 ? text.substr(0, cross) : text.substr(cross + 1), unit);
    if (!length) return length.error();
    if (!isSize(*length))
      return Error{{"envelope.size", Millimetres{1}, Millimetres{kLargest_mm}}, "envelope"};
    constexpr double kPerMillimetre = 1e4; // finer than any envelope
    sizes[k] = std::round(*length * kPerMillimetre) / kPerMillimetre;
  }
  return fmt::format("{}{}x{}", kOwn, std::max(sizes[0], sizes[1]), std::min(sizes[0], sizes[1]));
}

Text nameOf(const EnvelopeSize& envelope) {
  if (envelope.key.starts_with(kOwn))
    return {"envelope.own", Millimetres{envelope.long_mm}, Millimetres{envelope.short_mm}};
  return Text("envelope." + envelope.key);
}

} // namespace hinge
