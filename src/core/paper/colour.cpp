// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/colour.h"
#include <charconv>
#include <fmt/format.h>

namespace hinge {

std::string Colour::text() const {
  return fmt::format("#{:02x}{:02x}{:02x}", red, green, blue);
}

std::optional<Colour> colourFromText(std::string_view text) {
  if (text.size() != 7 || text.front() != '#') return std::nullopt;
  Colour colour;
  std::uint8_t* const parts[] = {&colour.red, &colour.green, &colour.blue};
  for (std::size_t k = 0; k < 3; ++k) {
    const char *from = text.data() + 1 + 2 * k, *to = from + 2;
    if (const auto read = std::from_chars(from, to, *parts[k], 16); read.ptr != to)
      return std::nullopt;
  }
  return colour;
}

} // namespace hinge
