// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/paper/paper.h"

namespace hinge {

/// The maker's own papers, kept for all cards in one file of the user's data folder (XDG). No file
/// is an empty drawer; one that cannot be read is left as it is.
Result<std::vector<Paper>> makersPapers();
/// Puts a paper in, in the place of one of the same key.
Result<void> keepPaper(const Paper& paper);
/// Takes one out; nothing happens when it is not there.
Result<void> forgetPaper(std::string_view key);
std::string makersDrawerPath();

} // namespace hinge
