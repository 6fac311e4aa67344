// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstddef>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

namespace hinge {

// What the core has to say to a user: the key of a sentence and what it is said of, with units. The
// sentences themselves, in the user's language, are made in words/ and nowhere else.

struct Millimetres {
  double value;
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
/// Text("tier", 2, Text("wall", "a")).
struct Text {
  std::string key;
  std::vector<Said> with;

  Text() = default;
  Text(const char* of) : key(of) {}
  Text(std::string of) : key(std::move(of)) {}
  Text(std::string_view of) : key(of) {}
  template <class Key, class First, class... More> Text(Key&& of, First&& first, More&&... more);
  bool empty() const { return key.empty(); }
};

/// One thing that a text is said of. A plain string is a name or key and is written as it is; a
/// whole number decides between singular and plural where the sentence has both.
struct Said {
  std::variant<int, Millimetres, Degrees, Decimal, std::string, Text> what;

  Said(int count) : what(count) {}
  Said(std::size_t count) : what(static_cast<int>(count)) {}
  Said(Millimetres length) : what(length) {}
  Said(Degrees angle) : what(angle) {}
  Said(Decimal number) : what(number) {}
  Said(const char* name) : what(std::string(name)) {}
  Said(std::string name) : what(std::move(name)) {}
  Said(std::string_view name) : what(std::string(name)) {}
  Said(Text text) : what(std::move(text)) {}
  Said(double) = delete; ///< of what unit?
};

template <class Key, class First, class... More>
Text::Text(Key&& of, First&& first, More&&... more) : key(std::forward<Key>(of)) {
  with.reserve(1 + sizeof...(More));
  with.emplace_back(std::forward<First>(first));
  (with.emplace_back(std::forward<More>(more)), ...);
}

} // namespace hinge
