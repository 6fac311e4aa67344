#pragma once
#include <compare>
#include <cstddef>
#include <initializer_list>
#include <vector>

namespace hinge {

/// Position of an element in one list of an assembly or mechanism. The tag keeps a panel's number from being used
/// as a fold's. Not stable between edits: what outlives an edit is the element's key.
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
  std::vector<I> indices() const {
    std::vector<I> all;
    for (std::size_t k = 0; k < m_items.size(); ++k) all.push_back(I(k));
    return all;
  }

private:
  std::vector<T> m_items;
};

} // namespace hinge
