// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

namespace hinge {

/// Text from outside (UTF-8) with a space in place of every control character but tab and line end:
/// a drawing with one of them cannot be read by others, and a terminal would obey it.
inline std::string printable(const std::string& text) {
  std::string clean;
  clean.reserve(text.size());
  for (std::size_t k = 0; k < text.size(); ++k) {
    const auto byte = static_cast<unsigned char>(text[k]);
    const bool low = (byte < 0x20 && byte != '\n' && byte != '\t') || byte == 0x7f;
    // U+0080 to U+009F are control characters of two bytes.
    const bool high =
        byte == 0xc2 && k + 1 < text.size() && static_cast<unsigned char>(text[k + 1]) < 0xa0;
    clean += low || high ? ' ' : text[k];
    if (high) ++k;
  }
  return clean;
}

} // namespace hinge
