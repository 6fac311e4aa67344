// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/sheet_scanner.h"
#include "core/base/nearest_word.h"
#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>

namespace hinge {
namespace {

constexpr std::size_t kMostShown = 40; ///< of what is quoted in an error

bool isLetter(char c) {
  return std::isalpha(static_cast<unsigned char>(c)) != 0;
}
bool isDigit(char c) {
  return std::isdigit(static_cast<unsigned char>(c)) != 0;
}

} // namespace

void SheetScanner::skip() {
  while (m_at < m_text.size() && std::isspace(static_cast<unsigned char>(m_text[m_at])) != 0)
    ++m_at;
}

bool SheetScanner::atEnd() const {
  SheetScanner ahead = *this;
  ahead.skip();
  return ahead.m_at >= m_text.size();
}

bool SheetScanner::sees(std::string_view word) const {
  SheetScanner ahead = *this;
  return ahead.take(word);
}

bool SheetScanner::take(std::string_view word) {
  const std::size_t before = m_at;
  skip();
  const std::string_view rest = m_text.substr(m_at);
  const bool whole =
      rest.starts_with(word) && (!isLetter(word.back()) || rest.size() == word.size() ||
                                 !(isLetter(rest[word.size()]) || rest[word.size()] == '-'));
  m_at = whole ? m_at + word.size() : before;
  return whole;
}

std::optional<double> SheetScanner::unsignedNumber() {
  skip();
  double value = 0;
  const char* begin = m_text.data() + m_at;
  const char* end = m_text.data() + m_text.size();
  if (begin == end || !(isDigit(*begin) || *begin == '.')) return std::nullopt;
  const auto [stop, error] = std::from_chars(begin, end, value, std::chars_format::fixed);
  if (error != std::errc()) return std::nullopt;
  m_at = static_cast<std::size_t>(stop - m_text.data());
  return value;
}

std::optional<double> SheetScanner::mixedNumber(bool second) {
  auto value = unsignedNumber();
  if (!value) return std::nullopt;
  const auto over = [this](double above) -> std::optional<double> {
    const auto below = take("/") ? unsignedNumber() : std::nullopt;
    return below && *below != 0 ? std::optional(above / *below) : std::nullopt;
  };
  if (const std::size_t before = m_at; const auto fraction = over(*value))
    return fraction;
  else
    m_at = before;
  const std::size_t before = m_at;
  const auto above = unsignedNumber();
  const auto fraction = above ? over(*above) : std::nullopt;
  if (!fraction || (second && sees(","))) return m_at = before, value;
  return *value + *fraction;
}

std::optional<double> SheetScanner::signedNumber(bool second) {
  const std::size_t before = m_at;
  skip();
  const bool negative = m_at < m_text.size() && m_text[m_at] == '-';
  if (negative) ++m_at;
  const auto value = mixedNumber(second);
  if (!value) return m_at = before, std::nullopt;
  return negative ? -*value : *value;
}

std::optional<double> SheetScanner::length(bool second) {
  const auto value = signedNumber(second);
  if (!value) return std::nullopt;
  LengthUnit unit = m_unit;
  if (take("mm"))
    unit = LengthUnit::Millimetre;
  else if (take("cm"))
    unit = LengthUnit::Centimetre;
  else if (take("in") || take("\""))
    unit = LengthUnit::Inch;
  return *value * millimetresIn(unit);
}

std::optional<double> SheetScanner::angle_deg() {
  const auto value = signedNumber(false);
  if (value && !take("deg")) take("°");
  return value;
}

std::optional<Vec2> SheetScanner::point() {
  const std::size_t before = m_at;
  const auto x = length();
  const auto y = x && take(",") ? length(true) : std::nullopt;
  if (!y) return m_at = before, std::nullopt;
  return Vec2(*x, *y);
}

std::string SheetScanner::key() {
  skip();
  const std::size_t from = m_at;
  while (m_at < m_text.size() && (isLetter(m_text[m_at]) || isDigit(m_text[m_at]) ||
                                  m_text[m_at] == '-' || m_text[m_at] == '/'))
    ++m_at;
  return std::string(m_text.substr(from, m_at - from));
}

std::string_view SheetScanner::rest() const {
  SheetScanner ahead = *this;
  ahead.skip();
  return m_text.substr(std::min(ahead.m_at, m_text.size()), kMostShown);
}

std::string SheetScanner::beginning() const {
  std::string_view text = m_text;
  text.remove_prefix(std::min(text.find_first_not_of(' '), text.size()));
  if (text.size() <= kMostShown) return std::string(text);
  // As far as its last whole word.
  return std::string(text.substr(0, std::min(text.rfind(' ', kMostShown), kMostShown))) + " ...";
}

Error SheetScanner::lost(std::string_view wanted) const {
  const std::string place = beginning();
  if (rest().empty()) return Error{{"sheet.sentence/end", wanted}, place};
  return Error{{"sheet.sentence", wanted, rest()}, place};
}

std::string_view SheetScanner::nextWord() const {
  return rest().substr(0, rest().find(' '));
}

Error SheetScanner::noVerb(std::span<const std::string_view> words) const {
  const std::string place = beginning();
  const std::string_view first = nextWord();
  if (first.empty()) return Error{"sheet.no-verb/empty", place};
  const auto meant = nearestWord(first, words);
  if (meant) return Error{{"sheet.no-verb", first, *meant}, place};
  return Error{{"sheet.no-verb/none", first}, place};
}

Error SheetScanner::tooMuch() const {
  return Error{{"sheet.sentence/no-more", rest()}, beginning()};
}

} // namespace hinge
