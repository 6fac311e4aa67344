// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/piece_work.h"
#include "core/pieces/outline_edits.h"
#include "core/pieces/sheet_scanner.h"

namespace hinge {

// The sentences of a hand that changes what is there already (sheet_words.h has the others). P is a
// point of the sheet, S a score by its place on the lower edge or a line by a point of it.
//
//   pull corner P to P      a corner of the outline
//   pull edge P to L        an edge, square to itself, until the paper behind it is so wide
//   pull end P to P         an end of a line
//   pull line P to P        a line as it is; its ends stay on the rim
//   pull opening P to P     an opening that encloses the first point, or one of its corners
//   kink P, smooth P        another corner on the edge there; the corner there gone
//   round P by L            one corner; snip P by L cuts it off
//   lean S A                a score leans from the upright, to the right at its upper end
//   repeat S every L [times N] [turning]
//   alike                   both sides of the middle, left and right exchanged
//   close P                 the opening that encloses P gone

/// The words by which such a sentence begins.
const std::vector<std::string_view>& handVerbs();

/// Reads the line that is meant by its place on the lower edge or by a point.
Result<std::size_t> lineMeant(const PieceWork& work, SheetScanner& in, const Vec2& corner);

/// The side of a sheet that is named next, "left", "right", "bottom" or "top".
std::optional<SheetEdge> sideIn(SheetScanner& in);

/// What a sentence comes to when it begins with one of these words; nothing when it does not.
/// `corner` is the point of the flat frame from which places are read.
std::optional<Result<PieceWork>> workedByHand(const PieceWork& work, SheetScanner& in,
                                              const Vec2& corner);

} // namespace hinge
