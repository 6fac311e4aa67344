// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/json_place.h"
#include <algorithm>
#include <cctype>
#include <charconv>
#include <cstring>

namespace hinge {
namespace {

/// Walks through a text that is known to be JSON, one value at a time.
class Walker {
public:
  explicit Walker(std::string_view text) : m_text(text) {}

  std::size_t at() {
    while (m_at < m_text.size() && std::isspace(static_cast<unsigned char>(m_text[m_at])))
      ++m_at;
    return m_at;
  }
  bool ahead(char c) { return at() < m_text.size() && m_text[m_at] == c; }
  bool take(char c) {
    if (!ahead(c)) return false;
    ++m_at;
    return true;
  }
  /// The text between quotes as it is written: keys of ours hold no escapes.
  std::string_view quoted() {
    if (!take('"')) return {};
    const std::size_t from = m_at;
    while (m_at < m_text.size() && m_text[m_at] != '"')
      m_at += m_text[m_at] == '\\' ? 2 : 1;
    const std::size_t to = std::min(m_at, m_text.size());
    m_at = std::min(to + 1, m_text.size());
    return m_text.substr(from, to - from);
  }
  void skip() {
    if (ahead('"')) return void(quoted());
    if (!ahead('{') && !ahead('[')) {
      while (m_at < m_text.size() && !std::strchr(",]}", m_text[m_at]))
        ++m_at;
      return;
    }
    int depth = 0;
    do {
      if (ahead('"')) {
        quoted();
        continue;
      }
      if (m_at >= m_text.size()) return;
      depth += m_text[m_at] == '{' || m_text[m_at] == '[';
      depth -= m_text[m_at] == '}' || m_text[m_at] == ']';
      ++m_at;
    } while (depth > 0);
  }
  /// Goes to the value of a member; false, and past the object, when it has none.
  bool enter(std::string_view member) {
    if (!take('{')) return false;
    while (m_at < m_text.size() && !take('}')) {
      const std::string_view key = quoted();
      if (!take(':')) return false;
      if (key == member) return true;
      skip();
      take(',');
    }
    return false;
  }
  bool enter(int index) {
    if (!take('[')) return false;
    for (int k = 0; k < index; ++k) {
      if (ahead(']')) return false;
      skip();
      take(',');
    }
    return !ahead(']');
  }

private:
  std::string_view m_text;
  std::size_t m_at = 0;
};

} // namespace

std::optional<int> lineOf(std::string_view json, std::string_view path) {
  Walker walker(json);
  std::size_t reached = walker.at();
  bool first = true;
  while (!path.empty()) {
    bool entered = false;
    if (path.front() == '[') {
      int index = -1;
      const auto [end, wrong] = std::from_chars(path.data() + 1, path.data() + path.size(), index);
      if (wrong != std::errc() || index < 0) break;
      path.remove_prefix(std::min(static_cast<std::size_t>(end - path.data()) + 1, path.size()));
      entered = walker.enter(index);
    } else {
      if (path.front() == '.') path.remove_prefix(1);
      const std::string_view member = path.substr(0, path.find_first_of(".["));
      path.remove_prefix(member.size());
      entered = walker.enter(member);
    }
    if (!entered && first) return std::nullopt;
    if (!entered) break;
    first = false;
    reached = walker.at();
  }
  if (first) return std::nullopt;
  return 1 + static_cast<int>(std::ranges::count(json.substr(0, reached), '\n'));
}

} // namespace hinge
