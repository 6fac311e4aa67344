#pragma once
#include <compare>
#include <cstddef>
#include <functional>
#include <initializer_list>
#include <ranges>
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

/// A vector that is addressed only by its own index type.
template <class I, class T> class IndexedVector {
public:
  T& operator[](I i) { return m_items[static_cast<std::size_t>(i.value)]; }
  const T& operator[](I i) const { return m_items[static_cast<std::size_t>(i.value)]; }
  I push(T item) {
    m_items.push_back(std::move(item));
    return I(m_items.size() - 1);
  }
  void assign(std::size_t n, const T& item) { m_items.assign(n, item); }
  std::size_t size() const { return m_items.size(); }
  bool empty() const { return m_items.empty(); }
  auto begin() { return m_items.begin(); }
  auto end() { return m_items.end(); }
  auto begin() const { return m_items.begin(); }
  auto end() const { return m_items.end(); }
  /// All indices there are at the moment of the call; elements may be added while they are used.
  auto indices() const {
    return std::views::iota(0, static_cast<int>(m_items.size())) |
           std::views::transform([](int k) { return I(k); });
  }

private:
  std::vector<T> m_items;
};

/// The same for elements with a `key` that does not change; the first of a key is found in constant
/// time.
template <class I, class T> class KeyedVector : public IndexedVector<I, T> {
public:
  I push(T item) {
    const std::string key = item.key;
    const I index = IndexedVector<I, T>::push(std::move(item));
    m_byKey.emplace(key, index);
    return index;
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
