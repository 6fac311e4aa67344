// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <compare>
#include <cstddef>
#include <functional>
#include <initializer_list>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

namespace hinge {

/// Position of an element in one list of an assembly or mechanism. The tag keeps a panel's number
/// from being used as a fold's. Not stable between edits: what outlives an edit is the element's
/// key.
template <class Tag> struct Index {
  int value = -1;
  constexpr Index() = default;
  constexpr explicit Index(int v) : value(v) {}
  constexpr explicit Index(std::size_t v) : value(static_cast<int>(v)) {}
  constexpr bool valid() const { return value >= 0; }
  constexpr auto operator<=>(const Index&) const = default;
};

/// The indices from 0 to a number, to be walked through.
template <class I> class IndexRange {
public:
  class Iterator {
  public:
    using value_type = I;
    using difference_type = std::ptrdiff_t;
    Iterator() = default;
    explicit Iterator(int at) : m_at(at) {}
    I operator*() const { return I(m_at); }
    Iterator& operator++() {
      ++m_at;
      return *this;
    }
    Iterator operator++(int) {
      Iterator before = *this;
      ++m_at;
      return before;
    }
    bool operator==(const Iterator&) const = default;

  private:
    int m_at = 0;
  };
  explicit IndexRange(std::size_t count) : m_count(static_cast<int>(count)) {}
  Iterator begin() const { return Iterator(0); }
  Iterator end() const { return Iterator(m_count); }

private:
  int m_count;
};

/// A vector that is addressed only by its own index type.
template <class I, class T> class IndexedVector {
public:
  T& operator[](I i) { return m_items[static_cast<std::size_t>(i.value)]; }
  const T& operator[](I i) const { return m_items[static_cast<std::size_t>(i.value)]; }
  I push(T item) {
    m_items.push_back(std::move(item));
    return I(m_items.size() - 1);
  }
  void reserve(std::size_t n) { m_items.reserve(n); }
  void assign(std::size_t n, const T& item) { m_items.assign(n, item); }
  std::size_t size() const { return m_items.size(); }
  bool empty() const { return m_items.empty(); }
  auto begin() { return m_items.begin(); }
  auto end() { return m_items.end(); }
  auto begin() const { return m_items.begin(); }
  auto end() const { return m_items.end(); }
  /// All indices there are at the moment of the call; elements may be added while they are used.
  IndexRange<I> indices() const { return IndexRange<I>(m_items.size()); }

private:
  std::vector<T> m_items;
};

/// The same for elements with a `key` that does not change; the first of a key is found in constant
/// time.
template <class I, class T> class KeyedVector : public IndexedVector<I, T> {
public:
  I push(T item) {
    m_byKey.emplace(item.key, I(this->size()));
    return IndexedVector<I, T>::push(std::move(item));
  }
  /// Invalid when there is none.
  I find(std::string_view key) const {
    const auto it = m_byKey.find(key);
    return it == m_byKey.end() ? I() : it->second;
  }

private:
  struct Hash {
    using is_transparent = void;
    std::size_t operator()(std::string_view text) const {
      return std::hash<std::string_view>()(text);
    }
  };
  std::unordered_map<std::string, I, Hash, std::equal_to<>> m_byKey;
};

} // namespace hinge
