// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/states/in_plane.h"
#include <span>

namespace hinge {

/// The order in which the panels lie on one another in the shut card.
struct Stacking {
  bool known = false;            ///< false: the card does not shut, so there is nothing to stack
  std::vector<PanelIndex> order; ///< from page a up to page b; empty when a ring was found
  std::vector<PanelIndex>
      ring;        ///< panels each of which lies over the one before it and under the next
  struct Through { ///< a panel that would have to pass through a fold
    PanelIndex panel;
    FoldIndex fold;
    Vec3 place;
  };
  std::vector<Through> through;
};

/// Takes, for every two panels that overlap in the shut card, which lies above from the motion just
/// before it is shut, or, where they lie on one another there already, from the order of sheets in
/// one plane (Lying); sorts them, and verifies that no panel lies between the two leaves of a fold
/// that it reaches past. Cost: about n log n plus the overlapping pairs.
Stacking stackShut(const Motion& motion, std::span<const SheetOrder> order,
                   std::stop_token stop = {});

} // namespace hinge
