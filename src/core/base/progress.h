// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstddef>
#include <functional>

namespace hinge {

/// Told how far something long has come: `done` of `all` parts, on the thread that works. An empty
/// one is told nothing.
using Progress = std::function<void(std::size_t done, std::size_t all)>;

} // namespace hinge
