// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include <string>
#include <string_view>

namespace hinge {

/// A file that a maker has for all cards, in the user's data folder (XDG).
std::string makersFile(std::string_view name);
/// Writes one, and the folder if it is not there yet.
Result<void> writeMakersFile(const std::string& path, const std::string& text);

} // namespace hinge
