// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/edits/edits.h"

namespace hinge {

// Where a free piece closes the wrong way it is most often one of three: a tab glued by the wrong
// side, a tab turned round, a score folded the other way. And a fold that nothing drives wants to
// be told what it does. Each of these is one change, still to be tried on the whole design.

/// Every joint by its other side (its fold stays where it is) or turned half round, every score
/// the other way.
std::vector<Mend> joinedOtherwise(const Design& design, const Assembly& assembly,
                                  const StructureItem& item);

/// What could drive a fold of a free piece: a hand that lifts it, its maker who keeps it flat, the
/// card that opens it.
std::vector<Mend> drivenOtherwise(const Design& design, const StructureItem& item,
                                  const Fold& fold);

/// What could become of a score (its number, from 1) that ends in the paper: it is drawn on to the
/// next line or edge, or erased.
std::vector<Mend> finished(const Design& design, const StructureItem& item, int line);

/// The line of a sheet on which a fold lies; nothing for a fold of a recipe.
std::optional<std::size_t> lineUnder(const PieceWork& work, const Fold& fold);

} // namespace hinge
