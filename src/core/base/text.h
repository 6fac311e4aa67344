// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstddef>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <variant>

namespace hinge {

// What the core has to say to a user: the key of a sentence and what it is said of, with units. The
// sentences themselves, in the user's language, are made in words/ and nowhere else.

struct Millimetres {
  double value;
};
/// An area; told in square centimetres or square inches.
struct SquareMillimetres {
  double value;
};
/// What is cut off a roll: told in whole millimetres or quarters of an inch, never too short.
struct OffTheRoll {
  double value_mm;
};
struct Degrees {
  double value;
};
/// A number without a unit, with at most so many decimals.
struct Decimal {
  double value;
  int decimals = 0;
};

struct Said;

/// A sentence or a name, not yet in any language: its key in words/ and what goes into it.
/// Text("tier", 2, Text("wall", "a")). Copies share what goes into them: the name of a panel goes
/// into those of its faces, folds and tabs.
class Text {
public:
  std::string key;

  Text() = default;
  Text(const char* of) : key(of) {}
  Text(std::string of) : key(std::move(of)) {}
  Text(std::string_view of) : key(of) {}
  template <class Key, class First, class... More> Text(Key&& of, First&& first, More&&... more);
  bool empty() const { return key.empty(); }
  std::span<const Said> with() const;

private:
  std::shared_ptr<const Said> m_with; ///< the first of them
  std::size_t m_count = 0;
};

/// One thing that a text is said of. A plain string is a name or key and is written as it is; a
/// whole number decides between singular and plural where the sentence has both.
struct Said {
  std::variant<int, Millimetres, SquareMillimetres, OffTheRoll, Degrees, Decimal, std::string, Text>
      what;

  Said(int count) : what(count) {}
  Said(std::size_t count) : what(static_cast<int>(count)) {}
  Said(Millimetres length) : what(length) {}
  Said(SquareMillimetres area) : what(area) {}
  Said(OffTheRoll length) : what(length) {}
  Said(Degrees angle) : what(angle) {}
  Said(Decimal number) : what(number) {}
  Said(const char* name) : what(std::string(name)) {}
  Said(std::string name) : what(std::move(name)) {}
  Said(std::string_view name) : what(std::string(name)) {}
  Said(Text text) : what(std::move(text)) {}
  Said(double) = delete; ///< of what unit?
};

template <class Key, class First, class... More>
Text::Text(Key&& of, First&& first, More&&... more)
    : key(std::forward<Key>(of)), m_count(1 + sizeof...(More)) {
  using All = std::array<Said, 1 + sizeof...(More)>;
  const auto all = std::make_shared<const All>(
      All{Said(std::forward<First>(first)), Said(std::forward<More>(more))...});
  m_with = {all, all->data()};
}

inline std::span<const Said> Text::with() const {
  return {m_with.get(), m_with ? m_count : 0}; // none in what has been moved from
}

} // namespace hinge
