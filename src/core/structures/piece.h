// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/structures/recipe.h"

namespace hinge {

/// The way along the seat's fold, on a face beside it; on any other face the way along its own
/// line: the way in which a piece's position moves the points to which it is joined.
Vec2 alongFace(const Seat& seat, const SeatSide& face);

/// The joint by which a piece that lies with `toPanel` (its flat frame into the flat frame of the
/// panel's piece) is glued to that panel, by its face or its back, at the point `at` of the piece.
/// Nothing when the panel has no face to glue to.
std::optional<PieceJoint> glueJoint(const Assembly& assembly, PanelIndex panel, const Iso3& toPanel,
                                    bool byFace, const Vec2& at);

} // namespace hinge
