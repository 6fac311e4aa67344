// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/production/bench.h"
#include <string>

namespace hinge {

/// The maker's bench, kept for all cards in one file of the user's data folder (XDG). No file is
/// the bench as it starts; one that cannot be read is left as it is.
Result<Bench> makersBench();
Result<void> keepBench(const Bench& bench);
std::string makersBenchPath();

} // namespace hinge
