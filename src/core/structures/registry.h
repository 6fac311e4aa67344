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

} // namespace hinge
