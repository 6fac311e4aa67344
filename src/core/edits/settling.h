// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/edits/sheet.h"

namespace hinge {

/// The design with the numbers that its rules of placement come to now. A rule whose line goes away
/// later keeps these. The design as it is when it has no rules or cannot be put together.
Design withPlacesSettled(Design design);

/// The card with its numbers alone.
Design withoutRules(Design design);

/// The other way round: distances of rules as the numbers beside them have it, after an edit that
/// moved these (in proportion). What lies on its line stays there.
Design withDistancesMeasured(Design design);

/// Why the first joint of a sheet that is newly placed by rules cannot lie as they say; rules that
/// the sheet had before may have lost what they went by.
Result<void> newRulesHold(const Assembly& after, const SheetTarget& target, const PieceWork& before,
                          const PieceWork& now);

} // namespace hinge
