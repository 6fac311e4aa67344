// SPDX-License-Identifier: GPL-3.0-or-later
// Small faults that are switched on one at a time while the program runs; see faults.py, which puts
// these words into a copy of the sources. Nothing of this is in the program.
#pragma once
#include <Eigen/Core>
#include <algorithm>
#include <cmath>
#include <initializer_list>
#include <type_traits>
#include <utility>
#pragma GCC diagnostic ignored "-Wparentheses"
#pragma GCC diagnostic ignored "-Wsign-compare"

namespace faults {

extern int g_now; ///< the fault that is switched on, from HINGE_FAULT
extern unsigned char
    g_met[]; ///< of each fault, what follows; written to HINGE_FAULTS_MET at the end
enum : unsigned char { kIsPossible = 1, kIsMet = 2 };
extern thread_local bool t_flag; ///< from the left half of "and" and "or" to the right one

/// Told before main() of each fault that is compiled in: where the other way would not compile,
/// there is none.
template <int I> const bool kPossible = (g_met[I] = kIsPossible, true);

template <int I> bool on() {
  if (!(g_met[I] & kIsMet)) [[unlikely]]
    g_met[I] |= kPossible<I> ? kIsMet : 0;
  return g_now == I;
}

/// The value itself, in place of an expression of Eigen's that hangs on its parts.
template <class T> constexpr auto plain(T&& value) {
  using U = std::remove_cvref_t<T>;
  if constexpr (requires(const U& u) {
                  u.derived().eval();
                  typename U::Scalar;
                }) {
    if constexpr (U::RowsAtCompileTime == 1 && U::ColsAtCompileTime == 1)
      return typename U::Scalar(value.derived().eval()(0, 0));
    else
      return value.derived().eval();
  } else {
    return U(std::forward<T>(value));
  }
}

// Numbers are held by value: through references to them GCC 12 loses an argument here and there.
template <class A>
using Held =
    std::conditional_t<std::is_scalar_v<std::remove_cvref_t<A>>, std::remove_cvref_t<A>, A&&>;

// "a < b" is written "a < Less<7>{} < b", which binds as before: the left half holds a, the right
// one compares, the other way when fault 7 is on. Where the other way would not compile, it is no
// fault.
#define HINGE_FAULT(Name, op, other)                                                               \
  template <int I> struct Name {};                                                                 \
  template <int I, class A> struct Name##Held { Held<A> a; };                                      \
  template <int I, class A> constexpr Name##Held<I, A> operator op(A&& a, Name<I>) {               \
    return {std::forward<A>(a)};                                                                   \
  }                                                                                                \
  template <int I, class A, class B> constexpr auto operator op(Name##Held<I, A>&& held, B&& b) {  \
    if constexpr (requires { plain(held.a other b); }) {                                           \
      if constexpr (std::is_same_v<decltype(plain(held.a op b)), decltype(plain(held.a other b))>) \
        if (!std::is_constant_evaluated() && on<I>()) return plain(held.a other b);                \
    }                                                                                              \
    return plain(held.a op b);                                                                     \
  }
HINGE_FAULT(Less, <, >=)
HINGE_FAULT(Greater, >, <=)
HINGE_FAULT(AtMost, <=, >)
HINGE_FAULT(AtLeast, >=, <)
HINGE_FAULT(Plus, +, -)
HINGE_FAULT(Minus, -, +)
HINGE_FAULT(Same, ==, !=)
HINGE_FAULT(Other, !=, ==)
HINGE_FAULT(Times, *, /)
#undef HINGE_FAULT

// "a && b" is written "a && andLeft<7>() || andRight<7>() && b", "a || b" with "or" likewise: b is
// looked at only when it is needed, as before.
template <int I> bool andLeft() {
  if (on<I>()) return true;
  t_flag = true;
  return false;
}
template <int I> bool andRight() {
  const bool left = std::exchange(t_flag, false);
  return on<I>() || left;
}
template <int I> bool orLeft() {
  if (!on<I>()) return true;
  t_flag = true;
  return false;
}
template <int I> bool orRight() {
  const bool left = std::exchange(t_flag, false);
  return !on<I>() || left;
}

template <int I> constexpr bool yes() {
  return std::is_constant_evaluated() || !on<I>();
}
template <int I> constexpr bool turned() {
  return !std::is_constant_evaluated() && on<I>();
}
template <int I, class T, class... Than>
constexpr const T& larger(const T& a, const T& b, Than... than) {
  return turned<I>() ? std::min(a, b, than...) : std::max(a, b, than...);
}
template <int I, class T, class... Than>
constexpr const T& smaller(const T& a, const T& b, Than... than) {
  return turned<I>() ? std::max(a, b, than...) : std::min(a, b, than...);
}
template <int I, class T> constexpr T larger(std::initializer_list<T> all) {
  return turned<I>() ? std::min(all) : std::max(all);
}
template <int I, class T> constexpr T smaller(std::initializer_list<T> all) {
  return turned<I>() ? std::max(all) : std::min(all);
}
template <int I, class T> auto cosine(const T& angle) {
  return on<I>() ? std::sin(angle) : std::cos(angle);
}

} // namespace faults
