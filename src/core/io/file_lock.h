// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

namespace hinge {

/// Holds a file, or a folder, for oneself while it is read, changed and written anew. It keeps out
/// only who asks for it in the same way. Goes with the process.
class FileLock {
public:
  FileLock() = default;
  FileLock(FileLock&& other) noexcept;
  FileLock& operator=(FileLock&& other) noexcept;
  ~FileLock();

  /// Waits until nobody else holds it. A file that is replaced meanwhile is another file: the one
  /// that has the name in the end is held. Nothing is held where nothing is.
  static FileLock of(const std::string& path);
  /// The same without waiting: holds nothing when somebody else does.
  static FileLock tryOf(const std::string& path);
  bool holds() const { return m_handle >= 0; }

private:
  explicit FileLock(int handle) : m_handle(handle) {}
  int m_handle = -1;
};

} // namespace hinge
