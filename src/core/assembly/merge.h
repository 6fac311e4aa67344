// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"

namespace hinge {

/// Where the parts of an assembly are in one that has taken them in.
struct Taken {
  std::size_t panels = 0, folds = 0; ///< numbers of the first ones
  PanelIndex panel(PanelIndex own) const {
    return own.valid() ? PanelIndex(static_cast<std::size_t>(own.value) + panels) : own;
  }
  FoldIndex fold(FoldIndex own) const {
    return own.valid() ? FoldIndex(static_cast<std::size_t>(own.value) + folds) : own;
  }
};

/// Takes over pieces, panels, folds, joints, seats and, when `moving`, placements of an assembly
/// made by itself. Keys get "owner/" before them, labels of folds and seats say that they are
/// of `name`, and all of it is `owner`'s. Its drives and lifts stay behind.
Taken takeIn(Assembly& into, const Assembly& from, StructureId owner, const std::string& name,
             bool moving);

} // namespace hinge
