// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"

namespace hinge {

/// What a structure is called: its own label, or kind and number ("Box s2").
Text nameOf(const Design& design, StructureId id);
/// "wall a of Roof"; a page by itself.
Text panelName(const Design& design, const Assembly& assembly, PanelIndex panel);
/// What a seat is called: a face by its panel and whose that is.
Text seatName(const Design& design, const Assembly& assembly, const Seat& seat);
/// What a flat piece is called: by its structure, and which of its pieces when it has several
/// ("Tower, tier 2 lid"); of the base what it is ("card", "second page").
Text pieceName(const Design& design, const Assembly& assembly, PieceIndex piece);
/// The letter a panel carries on the sheet: A, B, ... Z, AA, ... in the order of the piece.
std::string panelLetter(const Assembly& assembly, PanelIndex panel);
/// A panel for somebody who has the paper before them: "wall a (B) of Tower, walls", "page a (A)".
Text panelOnSheet(const Design& design, const Assembly& assembly, PanelIndex panel);
/// How far the leaf has gone: "35°" of the card's own opening, or "180° and pulled 40 %"
/// past the opening of the base.
Text openingText(const CardBase& card, double opening_rad);

} // namespace hinge
