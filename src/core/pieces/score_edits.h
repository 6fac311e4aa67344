// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/piece_work.h"
#include <optional>

namespace hinge {

// What a hand does to the lines of a sheet, besides what a strip needs (design/piece_work.h). Lines
// go by their number; mm, in the flat frame of the piece. Every function returns the sheet as it is
// then, or why paper cannot be so.

/// An end of a line at another place: slanted, longer, or only a part of what it was.
Result<PieceWork> withEndMoved(const PieceWork& work, std::size_t line, bool last, const Vec2& to);
/// The scores that lie on one line with this one and fold the same way, itself among them: cuts and
/// openings may part them, but they fold together. A gap in the sheet itself ends a row.
std::vector<std::size_t> rowOf(const PieceWork& work, std::size_t line);
/// The row runs from rim to rim, whatever parts it in between.
bool isFromEdgeToEdge(const PieceWork& work, const std::vector<std::size_t>& row);

/// A line whose ends lie in the paper, drawn on at both of them to the next line or edge; nothing
/// when there is none to meet.
std::optional<PieceWork> withLineDrawnOn(const PieceWork& work, std::size_t line);
/// A line moved as it is; its ends go on to the rim where they were on it.
Result<PieceWork> withLineMoved(const PieceWork& work, std::size_t line, const Vec2& by);
/// A score leaning by an angle from the upright (positive: its upper end to the right), about its
/// lower end. The upper end stays on the rim if it was there.
Result<PieceWork> withLineLeaning(const PieceWork& work, std::size_t line, double angle_deg);
/// The angle by which a line leans, -90 to 90.
double leaning_deg(const WorkLine& line);

/// More lines like one, each so far beside the last (negative: to the left, or down for a level
/// line), as many as are said or, with 0, as the sheet has room for. `turning`: each folds the
/// other way than the one before. At least one, or it is refused.
Result<PieceWork> withRepeated(const PieceWork& work, std::size_t line, double every_mm, int count,
                               bool turning);
/// Every line and opening has its twin on the other side of the sheet's middle, left and right
/// exchanged: missing ones are added. Refused when all are there.
Result<PieceWork> withBothSidesAlike(const PieceWork& work);

} // namespace hinge
