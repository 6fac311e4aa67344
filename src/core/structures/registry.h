#pragma once
#include "core/structures/recipe.h"
#include <span>

namespace hinge {

/// All structure kinds, in the order in which the interface offers them.
std::span<const StructureKind* const> structureKinds();
const StructureKind* findStructureKind(std::string_view key);

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

} // namespace hinge
