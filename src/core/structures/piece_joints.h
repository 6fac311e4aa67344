// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/builder.h"
#include "core/structures/recipe.h"

namespace hinge {

/// Makes the joint that a maker gave for `own`, a panel of the piece being built; `number` counts
/// from 1. Slits of a slot are cut into both panels. Refuses a face that is not there.
Result<void> joinPiece(const RecipeInput& in, AssemblyBuilder& builder, const PieceJoint& joint,
                       std::size_t number, PanelIndex own);

} // namespace hinge
