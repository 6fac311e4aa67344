// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include <string_view>

namespace hinge {

/// Reads a time as people write it: `90 s`, `5 min`, `1 1/2 h`; a number alone is minutes. Returns
/// seconds; fails with what could not be read.
Result<double> parseDuration_s(std::string_view text);

} // namespace hinge
