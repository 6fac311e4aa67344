// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

/// What lies on a panel besides other panels: a layer, or the pads under a topper.
struct LaidOn {
  PanelIndex panel;
  Region onPiece; ///< in the flat frame of the panel's piece
  double thickness_mm = 0;
  std::string paper;     ///< key in the drawer; empty: pads
  bool onBack = false;   ///< on the side of the panel that looks against the normal of its piece
  std::size_t layer = 0; ///< of its side, the lowest first; pads and splices lie on all of them
};

} // namespace hinge
