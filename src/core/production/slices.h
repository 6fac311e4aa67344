// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/production/flat_piece.h"

namespace hinge {

struct Design;

/// Equal plain strips as one wide sheet: scored in one go, then sliced. Pieces are taken together
/// when they are rectangles with scores straight across at the same places, each mountain and
/// valley alike; as many as fit within `most_mm` by `most_mm`. Other pieces stay as they are. The
/// wide sheet stands for its first strip; see FlatPiece::slices.
std::vector<FlatPiece> takenTogether(std::vector<FlatPiece> pieces, double most_mm);

/// What goes on the sheets: the flat pieces, taken together when the design wants that.
std::vector<FlatPiece> piecesToCut(std::vector<FlatPiece> pieces, const Design& design);

} // namespace hinge
