// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <string_view>

namespace hinge {

/// The line (from 1) on which the value of a path such as "structures[2].values.a" stands in a JSON
/// text; of a member that is missing the line of the object it should be in. Nothing for a path
/// that leads nowhere at its first step. The text must be readable JSON.
std::optional<int> lineOf(std::string_view json, std::string_view path);

} // namespace hinge
