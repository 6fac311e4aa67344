// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/sheet.h"

namespace hinge {

/// A free piece parted along a line that runs from edge to edge: what lies left of it (or below)
/// stays, the rest becomes a piece of its own behind it, at the same seat. Joints go with the
/// panels that they hold, and what stood on a panel stands on it still. Fails when the line does
/// not part the paper in two.
Result<Added> parted(const Design& design, StructureId piece, std::size_t line);

/// Two free pieces as one sheet: `other` is laid with its edge on an edge of `piece` that is as
/// long, and both are scored there (valley). What was joined stays joined; `other` is gone. Fails
/// when the edges differ by more than a tenth of a millimetre, or the sheets would overlap.
Result<Design> joinedAlong(const Design& design, StructureId piece, std::size_t edge,
                           StructureId other, std::size_t otherEdge);

} // namespace hinge
