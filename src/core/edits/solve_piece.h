// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/edits.h"
#include "core/motion/motion.h"
#include <stop_token>

namespace hinge {

/// The single changes of a free piece each of which alone makes it lie flat in the shut card,
/// exactly, and leaves it its way there: one panel wider or narrower (what lies beyond it goes
/// along), one score at another place, one panel joined at another place of its face. The smallest
/// first. The gap of the rings in the shut state is linear in each, so that two poses tell it;
/// glued panels keep their width. `apart_mm`: of a piece that cannot be put together, by how much
/// its ring stays open; it is tried both ways. Cost: a trace or two for each change, of the piece
/// and what it stands on alone.
std::vector<Mend> changesThatShut(const Design& design, const Motion& motion, StructureId id,
                                  double apart_mm = 0, std::stop_token stop = {});

/// The first of them.
std::optional<Mend> solveShut(const Design& design, const Motion& motion, StructureId id);

/// The strip as even steps between the two sides of its fold: its end tabs stay as wide and where
/// they are glued, between them come `steps` treads parallel to one page and as many risers
/// parallel to the other. Rise and tread follow from how far the feet stand from the fold, so that
/// the strip lies flat exactly whatever the number. Fails when the piece is not glued to both
/// sides.
Result<PieceWork> evenSteps(const Design& design, StructureId id, int steps);

} // namespace hinge
