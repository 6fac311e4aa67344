// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/design/design.h"
#include "core/edits/edits.h"
#include "core/pieces/sheet_words.h"

namespace hinge {

/// Which sheet is worked on: one of the base's, counted from 0, or a free piece.
struct SheetTarget {
  std::optional<StructureId> piece;
  std::size_t sheet = 0;
};

/// "card" (the first sheet of the base), "card/2", "s3". One more than there are is a new sheet of
/// the base. Fails when there is no such sheet.
Result<SheetTarget> sheetTarget(const Design& design, std::string_view text);

/// The sheet as it is. The base must be one of sheets (see withBaseAsSheet); a new one has no paper
/// yet.
SheetInWork sheetOf(const Design& design, const SheetTarget& target);

/// The design with a sheet worked anew. Structures that stand on its panels and folds go along with
/// the paper they stood on: where panels are named anew, so are their seats.
Result<Design> withSheet(const Design& design, const SheetTarget& target,
                         const SheetInWork& worked);

/// A piece as its recipe makes it, as work of a maker: one outline, its folds as scores that
/// nothing is said of, in the order of the assembly. Without an outline when its panels are not one
/// sheet.
PieceWork workOf(const Assembly& assembly, const Piece& piece);

/// The same card with its base as one sheet with scores; nothing about it changes but that it can
/// be worked on. Fails for bases of more than one piece.
Result<Design> withBaseAsSheet(const Design& design);

/// The seat to which new paper belongs: the first fold of the card, or its first face.
std::string firstSeat(const Assembly& assembly);

/// A plain sheet beside the card, joined to nothing yet: half again as wide as the
/// first page and a third as high. It belongs to the first fold of the card.
Result<Added> newSheet(const Design& design);

/// The card's finished size as it needs to be for everything on it when shut; as it is when the
/// card cannot be put together.
CardBase withFinishedSize(const Design& design);

/// The card after an edit of its sheets: what was as large as the shut base was still is, until its
/// maker says otherwise; and a base that nothing folds lies, one that something folds stands on its
/// edges. Cost: the motions of both bases.
Design followingTheSheet(const Design& before, Design after);

} // namespace hinge
