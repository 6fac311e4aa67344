// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/design.h"
#include "core/dress/seen.h"
#include "core/production/cut_plan.h"
#include "core/production/flat_piece.h"
#include "core/states/shut_state.h"

namespace hinge {

/// A piece as it is cut: whole, or in parts that are glued to one another by the tabs of its
/// splices, in the order from the left (from below). All are in the frame of the piece.
std::vector<FlatPiece> cutParts(const FlatPiece& piece, const Assembly& assembly,
                                const std::vector<Splice>& splices);

/// A way to part pieces so that all of them find a sheet.
struct SpliceProposal {
  PieceIndex piece;
  std::vector<Splice> splices; ///< to be added; none: no place was found
  double seen = 0;             ///< how much of the cuts is seen on display, at most: a share
  bool tabHidden = true;       ///< nobody sees the side on which the tabs lie
  double spared_width_mm = 0, spared_height_mm = 0; ///< a sheet on which it would lie whole
};

/// The splices of all proposals.
std::vector<Splice> splicesOf(const std::vector<SpliceProposal>& proposals);

/// For every piece that no sheet of its paper holds: where to part it, on a panel that is no tab,
/// off folds and openings, where it is least seen, then clear of folds by a finger's breadth, then
/// in the most even parts. A cut is seen as far as its face is, and nothing is laid or glued over
/// it. `seen` has a share for every face; empty: it is not known. The margin is that of the layout.
std::vector<SpliceProposal> proposedSplices(const Design& design, const Assembly& assembly,
                                            const std::vector<FlatPiece>& pieces,
                                            const KeyedVector<FaceIndex, Face>& faces,
                                            const std::vector<FaceSeen>& seen,
                                            const std::vector<LaidOn>& laid, double margin_mm);

} // namespace hinge
