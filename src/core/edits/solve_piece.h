// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/edits.h"
#include "core/motion/motion.h"

namespace hinge {

/// The width of one panel of a free piece, or else the place of one score, that makes it lie flat
/// in the shut card, exactly. The gap of the rings in the shut state is linear in every width, so
/// that two poses tell it; the smallest change is taken. Glued panels keep their width. Nothing
/// when no such change closes the rings. Cost: a trace or two per panel and score.
std::optional<Mend> solveShut(const Design& design, const Motion& motion, StructureId id);

/// The strip as even steps between the two sides of its fold: its end tabs stay as wide and where
/// they are glued, between them come `steps` treads parallel to one page and as many risers
/// parallel to the other. Rise and tread follow from how far the feet stand from the fold, so that
/// the strip lies flat exactly whatever the number. Fails when the piece is not glued to both
/// sides.
Result<PieceWork> evenSteps(const Design& design, StructureId id, int steps);

} // namespace hinge
