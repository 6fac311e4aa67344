// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/piece_work.h"
#include "core/geom/rim.h"
#include "core/geom/sheet_edge.h"

namespace hinge {

// What a hand does to the outline of a sheet. Corners and edges go by their number in the outline,
// edge k from corner k to the next; mm, in the flat frame of the piece. Scores and cuts that ended
// on the outline still do. Every function returns the sheet as it is then, or why paper cannot be
// so.

/// The corner and the edge nearest to a point within `reach_mm`.
std::optional<std::size_t> cornerAt(const PieceWork& work, const Vec2& at, double reach_mm);
std::optional<std::size_t> edgeAt(const PieceWork& work, const Vec2& at, double reach_mm);

/// Another outline. What ended in a corner goes where that went, if there are as many corners as
/// before; what ended on the rim elsewhere goes on to it, along its own line.
Result<PieceWork> withOutline(const PieceWork& work, Polygon outline);
Result<PieceWork> withCornerMoved(const PieceWork& work, std::size_t corner, const Vec2& to);
/// An edge moved square to itself, away from the paper (or into it).
Result<PieceWork> withEdgeMoved(const PieceWork& work, std::size_t edge, double out_mm);
/// Another corner on an edge; it changes nothing until it is moved.
Result<PieceWork> withCornerAdded(const PieceWork& work, std::size_t edge, const Vec2& at);
Result<PieceWork> withCornerRemoved(const PieceWork& work, std::size_t corner);
enum class CornerCut { Round, Snip };
/// A corner rounded by a radius, or cut off so far from it along both of its edges.
Result<PieceWork> withCornerCut(const PieceWork& work, std::size_t corner, CornerCut how,
                                double size_mm);
/// All convex corners of the outline rounded, as far as edges leave room.
Result<PieceWork> withRoundCorners(const PieceWork& work, double radius_mm);

/// Paper added beyond an edge, scored there; its ends lean by `bevel_deg`.
Result<PieceWork> withTab(const PieceWork& work, std::size_t edge, double depth_mm,
                          WorkLine::Kind kind, double bevel_deg);

/// So much cut off along one side of the bounding box, between two places along it (x of the upper
/// and lower side, y of the others). Scores and cuts end at the new edge, an opening that it meets
/// becomes part of the rim, and what is cut off is gone. Fails where nothing is cut off, where the
/// sheet falls apart, and where something is joined to what is cut off.
Result<PieceWork> withTrimmed(const PieceWork& work, SheetEdge side, double depth_mm,
                              double from_mm, double to_mm);

/// How far the paper reaches from an edge, square to it: what "so wide" means to one who moves it.
double widthAt_mm(const PieceWork& work, std::size_t edge);

} // namespace hinge
