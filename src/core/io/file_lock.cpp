// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/file_lock.h"
#include <cerrno>
#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>
#include <utility>

namespace hinge {
namespace {

/// Whether the open file is still the one that has the name.
bool hasTheName(int handle, const std::string& path) {
  struct stat held {
  }, named{};
  return ::fstat(handle, &held) == 0 && ::stat(path.c_str(), &named) == 0 &&
         held.st_ino == named.st_ino && held.st_dev == named.st_dev;
}

int locked(const std::string& path, int how) {
  for (;;) {
    const int handle = ::open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);
    if (handle < 0) return -1;
    int done = 0;
    do
      done = ::flock(handle, how);
    while (done != 0 && errno == EINTR);
    if (done == 0 && hasTheName(handle, path)) return handle;
    ::close(handle);
    if (done != 0) return -1;
  }
}

} // namespace

FileLock::FileLock(FileLock&& other) noexcept : m_handle(std::exchange(other.m_handle, -1)) {}

FileLock& FileLock::operator=(FileLock&& other) noexcept {
  std::swap(m_handle, other.m_handle);
  return *this;
}

FileLock::~FileLock() {
  if (m_handle >= 0) ::close(m_handle);
}

FileLock FileLock::of(const std::string& path) {
  return FileLock(locked(path, LOCK_EX));
}

FileLock FileLock::tryOf(const std::string& path) {
  return FileLock(locked(path, LOCK_EX | LOCK_NB));
}

} // namespace hinge
