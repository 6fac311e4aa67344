// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"

namespace hinge {

/// Finds the folds behind which nothing holds the paper: without them it would come off, and no
/// ring says how far it is folded. They rest as their maker folded them, or flat (Fold::hangs),
/// unless they rest already; a pin or slide there rests where its maker's hand leaves it. What goes
/// along with the folds that are lifted by hand is filled in. Cost: linear in panels and joints,
/// for each fold that is lifted.
void settleLooseFolds(Assembly& assembly);

/// The hanging fold by which a panel can be turned, with all that goes along; from and to where it
/// rests. Nothing when something else holds the panel.
std::optional<Lift> foldingOf(const Assembly& assembly, PanelIndex panel);

} // namespace hinge
