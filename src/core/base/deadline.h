// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>
#include <condition_variable>
#include <mutex>
#include <stop_token>
#include <thread>

namespace hinge {

/// Asks for a stop when a time has passed, or when it goes out of scope, whichever is first. Long
/// work takes the token and looks at it now and then; how it ends is its own affair.
class Deadline {
public:
  explicit Deadline(std::chrono::duration<double> after)
      : m_clock([this, after](std::stop_token ended) {
          std::unique_lock lock(m_mutex);
          m_wake.wait_for(lock, ended, after, [] { return false; });
          m_stop.request_stop();
        }) {}
  std::stop_token token() const { return m_stop.get_token(); }
  bool passed() const { return m_stop.stop_requested(); }

private:
  std::stop_source m_stop;
  std::mutex m_mutex;
  std::condition_variable_any m_wake;
  std::jthread m_clock; ///< the last member: it ends before the others go
};

} // namespace hinge
