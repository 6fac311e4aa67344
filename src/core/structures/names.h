#pragma once
#include "core/design/design.h"

namespace hinge {

/// What a structure is called: its own label, or kind and number ("Box s2").
std::string nameOf(const Design& design, StructureId id);
/// "wall a of Roof" for the key "s2/wall-a".
std::string panelName(const Design& design, const std::string& key);
/// How far the leaf has gone, in words: "35°" of the card's own opening, or "180° and pulled 40 %"
/// past the opening of the base.
std::string openingText(const CardBase& card, double opening_rad);

} // namespace hinge
