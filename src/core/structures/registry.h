// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/structures/recipe.h"
#include <span>

namespace hinge {

/// All structure kinds, in the order in which the interface offers them.
std::span<const StructureKind* const> structureKinds();
const StructureKind* findStructureKind(std::string_view key);

/// The rows that a structure of a design has: of a free piece also the widths of its panels, in
/// order.
ParameterTable parametersOf(const StructureItem& item);
/// Ways to mend a structure: those of its recipe or, of a free piece, the widths of its panels and
/// where it is.
std::vector<MendDirection> mendDirectionsOf(const StructureItem& item);

// One per file; entered in registry.cpp.
const StructureKind& vfoldKind();
const StructureKind& boxKind();
const StructureKind& closedBoxKind();
const StructureKind& cubeKind();
const StructureKind& cornerCubeKind();
const StructureKind& sideBoxKind();
const StructureKind& windowKind();
const StructureKind& stripKind();
const StructureKind& tiersKind();
const StructureKind& platformKind();
const StructureKind& stepKind();
const StructureKind& cutVFoldKind();
const StructureKind& figureKind(); ///< figure.cpp holds both kinds that are glued on a face
const StructureKind& armKind();
const StructureKind& standingFigureKind();
const StructureKind& pieceKind();
const StructureKind& cardOnFaceKind(); ///< card_within.cpp holds both
const StructureKind& cardOnFoldKind();

} // namespace hinge
