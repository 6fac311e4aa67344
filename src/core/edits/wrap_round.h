// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/edits.h"

namespace hinge {

/// The piece as a strap round the panel that its first joint lies on: as wide as it was, running
/// the way it ran there, its two folds as far apart as the layers ask for, closed by an overlap of
/// `overlap_mm` glued inside. Fails when it lies on no panel.
Result<PieceWork> wrappedRound(const Design& design, StructureId id, double overlap_mm);

} // namespace hinge
