// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/names.h"
#include "core/structures/registry.h"
#include "core/units/length.h"
#include <algorithm>

namespace hinge {

Text nameOf(const Design& design, StructureId id) {
  const StructureItem* item = design.find(id);
  if (!item) return {"as-it-is", id.text()};
  if (!item->label.empty()) return {"as-it-is", item->label};
  return {"kind-and-number", findStructureKind(item->kind)->name(), id.text()};
}

Text panelName(const Design& design, const Assembly& assembly, PanelIndex index) {
  const Panel& panel = assembly.panels[index];
  return panel.owner ? Text("of", panel.label, nameOf(design, *panel.owner)) : panel.label;
}

Text seatName(const Design& design, const Assembly& assembly, const Seat& seat) {
  const PanelIndex panel = seat.sides[0].panel;
  if (seat.kind() != SeatKind::Face || !assembly.panels[panel].owner) return seat.label;
  const bool isFace = seat.key == assembly.panels[panel].key;
  return {isFace ? "face-of" : "back-of", panelName(design, assembly, panel)};
}

Text pieceName(const Design& design, const Assembly& assembly, PieceIndex index) {
  const Piece& piece = assembly.pieces[index];
  if (!piece.owner) return piece.label;
  const auto same = [&](const Piece& other) { return other.owner == piece.owner; };
  Text name = nameOf(design, *piece.owner);
  return std::ranges::count_if(assembly.pieces, same) == 1
             ? name
             : Text("part-of-several", std::move(name), piece.label);
}

std::string panelLetter(const Assembly& assembly, PanelIndex panel) {
  const auto& panels = assembly.pieces[assembly.panels[panel].piece].panels;
  return letters(static_cast<int>(std::ranges::find(panels, panel) - panels.begin()) + 1, 'A');
}

Text panelOnSheet(const Design& design, const Assembly& assembly, PanelIndex index) {
  const Panel& panel = assembly.panels[index];
  const Piece& piece = assembly.pieces[panel.piece];
  // A piece of one panel is called by its own name.
  if (piece.panels.size() == 1 && (piece.owner || panel.use == PanelUse::Topper))
    return pieceName(design, assembly, panel.piece);
  Text itself("with-letter", panel.label, panelLetter(assembly, index));
  if (panel.use == PanelUse::Page) return itself;
  if (panel.owner && panel.owner != piece.owner) // cut from the sheet of another
    return {"of", std::move(itself), nameOf(design, *panel.owner)};
  return {"of", std::move(itself), pieceName(design, assembly, panel.piece)};
}

Text openingText(const CardBase& card, double opening_rad) {
  const double way = degrees(opening_rad);
  if (card.openBy_deg >= 180) return {"as-it-is", Degrees{way}};
  if (way <= card.openBy_deg) return {"as-it-is", Degrees{way * 180 / card.openBy_deg}};
  return {"pulled-past-open", Degrees{180},
          Decimal{100 * (way - card.openBy_deg) / (180 - card.openBy_deg), 0}};
}

} // namespace hinge
