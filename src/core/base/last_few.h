// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <mutex>
#include <optional>
#include <utility>
#include <vector>

namespace hinge {

/// Keeps the results for the last few keys that were asked for; any thread may ask.
template <class Key, class Value> class LastFew {
public:
  std::optional<Value> find(const Key& key) const {
    const std::scoped_lock lock(m_mutex);
    const auto it = std::ranges::find(m_known, key, &std::pair<Key, Value>::first);
    return it == m_known.end() ? std::nullopt : std::optional<Value>(it->second);
  }
  void keep(Key key, Value value) {
    constexpr std::size_t kMost = 8;
    const std::scoped_lock lock(m_mutex);
    if (m_known.size() >= kMost) m_known.erase(m_known.begin());
    m_known.push_back({std::move(key), std::move(value)});
  }

private:
  mutable std::mutex m_mutex;
  std::vector<std::pair<Key, Value>> m_known;
};

} // namespace hinge
