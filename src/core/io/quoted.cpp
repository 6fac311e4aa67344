// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/quoted.h"

namespace hinge {

std::string quoted(const std::string& text, char parting) {
  const auto blank = [](char c) { return c == ' ' || c == '\t'; };
  bool plain = !text.empty() && !blank(text.front()) && !blank(text.back());
  for (std::size_t k = 0; k < text.size(); ++k)
    plain = plain && text[k] != '"' && text[k] != '\n' && text[k] != '\t' && text[k] != '\r' &&
            (parting == '\0' || text[k] != parting) &&
            !(k > 0 && blank(text[k - 1]) && blank(text[k]));
  if (plain) return text;
  std::string out = "\"";
  for (const char c : text) {
    const char after = c == '\n' ? 'n' : c == '\t' ? 't' : c == '\r' ? 'r' : c;
    if (after != c || c == '"' || c == '\\') out += '\\';
    out += after;
  }
  return out + '"';
}

std::size_t endOfQuoted(std::string_view text, std::size_t from) {
  for (std::size_t k = from + 1; k < text.size(); ++k) {
    if (text[k] == '\\')
      ++k;
    else if (text[k] == '"')
      return k + 1;
  }
  return text.size();
}

std::string unquoted(std::string_view text) {
  if (text.size() < 2 || text.front() != '"' || endOfQuoted(text, 0) != text.size() ||
      text.back() != '"')
    return std::string(text);
  std::string out;
  for (std::size_t k = 1; k + 1 < text.size(); ++k) {
    const bool escaped = text[k] == '\\' && k + 2 < text.size();
    if (escaped) ++k;
    const char c = text[k];
    out += !escaped ? c : c == 'n' ? '\n' : c == 't' ? '\t' : c == 'r' ? '\r' : c;
  }
  return out;
}

} // namespace hinge
