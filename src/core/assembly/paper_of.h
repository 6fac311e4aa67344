// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/design/design.h"

namespace hinge {

/// The paper that a panel is cut from; that of the card when its own is not in the drawer.
inline const Paper& paperOf(const Design& design, const Assembly& assembly, PanelIndex panel) {
  return design.paperNamed(assembly.pieces[assembly.panels[panel].piece].paper);
}

} // namespace hinge
