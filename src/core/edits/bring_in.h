// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/sheet.h"

namespace hinge {

// Paper that comes from outside (core/io/drawing.h), put where its maker wants it.

/// A free piece, joined to nothing yet; its lower left corner lies in the zero of its flat frame.
/// It belongs to a seat, or to the first fold of the card.
Result<Added> withPieceIn(const Design& design, const PieceWork& piece, std::string_view seat = "");
/// The base of the card as this sheet: its scores from edge to edge follow the opening. What stood
/// on the old base goes.
Result<Design> withBaseIn(const Design& design, const PieceWork& piece);
/// Openings in a sheet. With a place their common middle comes to lie there, else they lie as they
/// were drawn, from the lower left corner of the sheet.
Result<Design> withOpeningsIn(const Design& design, const SheetTarget& target,
                              std::vector<Polygon> openings, const std::optional<Vec2>& middle);

} // namespace hinge
