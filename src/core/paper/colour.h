// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace hinge {

/// What paper and print look like in daylight.
struct Colour {
  std::uint8_t red = 255, green = 255, blue = 255;
  bool operator==(const Colour&) const = default;
  std::string text() const; ///< "#f3e6cf"
};

/// Of "#rrggbb", upper or lower case; nothing for anything else.
std::optional<Colour> colourFromText(std::string_view text);

} // namespace hinge
