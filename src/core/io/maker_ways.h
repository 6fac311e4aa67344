// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/making/adhesive.h"
#include <string>

namespace hinge {

/// The maker's ways at glueing, kept for all cards in one file of the user's data folder (XDG). No
/// file is the ways as they start; one that cannot be read is left as it is.
Result<MakingWays> makersWays();
Result<void> keepWays(const MakingWays& ways);
std::string makersWaysPath();

} // namespace hinge
