// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <condition_variable>
#include <memory>
#include <mutex>
#include <stop_token>

namespace hinge {

/// A value that is worked out when it is first asked for, and at most once however many threads
/// ask. Who is stopped while working, or while waiting for another thread, gets nothing; then the
/// value stays open and the next one who asks works it out.
template <typename T> class Lazy {
public:
  /// `work` returns a shared pointer to the value, or null when it was stopped.
  template <typename Work> std::shared_ptr<const T> get(std::stop_token stop, Work&& work) const {
    std::unique_lock lock(m_mutex);
    const bool free =
        m_changed.wait(lock, stop, [this] { return m_value != nullptr || !m_working; });
    if (m_value || !free) return m_value;
    m_working = true;
    lock.unlock();
    // Also when the work throws.
    struct End {
      const Lazy& lazy;
      std::shared_ptr<const T> value;
      ~End() {
        const std::lock_guard guard(lazy.m_mutex);
        lazy.m_working = false, lazy.m_value = value;
        lazy.m_changed.notify_all();
      }
    } end{*this, nullptr};
    end.value = work();
    return end.value;
  }

  /// The value if it is there; does not wait.
  std::shared_ptr<const T> ready() const {
    const std::lock_guard guard(m_mutex);
    return m_value;
  }

private:
  mutable std::mutex m_mutex;
  mutable std::condition_variable_any m_changed;
  mutable bool m_working = false;
  mutable std::shared_ptr<const T> m_value;
};

} // namespace hinge
