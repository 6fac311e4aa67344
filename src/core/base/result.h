// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/text.h"
#include <string>
#include <utility>
#include <variant>

namespace hinge {

/// What went wrong and where. `message` is a sentence of words/ whose key begins with a stable code
/// for programs: "file.truncated", "value.range/whole".
struct Error {
  Text message;
  std::string place; ///< file, member, structure or parameter the cause sits in; may be empty
  int line = 0;      ///< of the file; 0: unknown

  /// The key without what tells sentences of the same code apart ("value.range").
  std::string code() const { return message.key.substr(0, message.key.find('/')); }
};

/// Either a value or the reason why there is none. Used for everything that a design, a file or a
/// user can cause; programming errors stay asserts.
template <class T> class [[nodiscard]] Result {
public:
  Result(T value) : m_state(std::move(value)) {}
  Result(Error error) : m_state(std::move(error)) {}

  bool ok() const { return std::holds_alternative<T>(m_state); }
  explicit operator bool() const { return ok(); }
  const T& value() const& { return std::get<T>(m_state); }
  T&& value() && { return std::get<T>(std::move(m_state)); }
  const Error& error() const { return std::get<Error>(m_state); }
  const T& operator*() const { return value(); }
  const T* operator->() const { return &value(); }

private:
  std::variant<T, Error> m_state;
};

template <> class [[nodiscard]] Result<void> {
public:
  Result() = default;
  Result(Error error) : m_error(std::move(error)), m_failed(true) {}
  bool ok() const { return !m_failed; }
  explicit operator bool() const { return ok(); }
  const Error& error() const { return m_error; }

private:
  Error m_error;
  bool m_failed = false;
};

} // namespace hinge
