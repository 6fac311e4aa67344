// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/edits.h"

namespace hinge {

// Copies and mirror images of structures, with everything that stands on them.

/// The structure as its mirror image across its seat's fold (twins exchanged), guests included.
/// Positions along folds stay; on faces they run from the other end, so the assembly is asked for
/// their lengths.
Result<Design> mirrored(const Design& design, StructureId id);

/// Adds `times` copies, each `step_mm` further along the seat than the one before. Fails when there
/// is nothing to copy.
Result<Design> repeatedAlong(const Design& design, StructureId id, int times, double step_mm);

/// Adds a mirror image on the other side: of a structure on "s3/valley-a" one on "s3/valley-b".
/// Fails for a seat without another side.
Result<Added> copiedToOtherSide(const Design& design, StructureId id);

} // namespace hinge
