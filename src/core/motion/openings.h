// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"

namespace hinge {

// Openings at which what goes along the whole way of a card looks at it. A leaf may have all of its
// way within half a degree of the opening: steps are as long as what turns in them, not as the
// opening alone.

/// The openings at which something begins or ends to move, and the ends of the card's use, rising,
/// each once.
std::vector<double> turningPoints(const Assembly& assembly);

/// How far anything that is driven turns between two openings (rad); at least as much as the card
/// opens.
double turnBetween(const Assembly& assembly, double from_rad, double to_rad);

/// The whole use of the card in steps in which nothing driven turns by more than `step_rad`, ends
/// and turning points included.
std::vector<double> openingsToLookAt(const Assembly& assembly, double step_rad);

} // namespace hinge
