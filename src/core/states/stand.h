// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/states/laid_on.h"
#include <span>

namespace hinge {

/// How the open card stands on the table: one rigid thing of paper weight at its display opening.
struct Stand {
  bool reached = false; ///< the display opening lies in the range of the motion
  double opening_rad = 0;
  double leastTip_rad = 0; ///< it falls when tilted by more than this in the worst direction;
                           ///< negative: falls by itself
  double worstDirection_rad =
      0; ///< that direction: 0 away from the gutter over page b, anticlockwise from above
  std::vector<double> tips_rad; ///< the same in equal steps all round, starting at direction 0
  Vec3 centre = Vec3::Zero();   ///< of gravity, world frame
  double weight_g = 0;
};

/// Centre of gravity of all panels over the outline of what touches the table. Lying, page b rests
/// on the table; on its edge, a card folded at the side stands on its lower edge and one folded at
/// the top on both fore edges, like a roof. Layers weigh as their paper does, pads nothing.
Stand standOf(const Motion& motion, const Design& design, std::span<const LaidOn> laid = {},
              int directions = 36);

/// Turns the world so that the table is level (z up): lying, page b rests on it; on its edge, see
/// standOf(). How high the table lies is not told.
Iso3 onTable(const CardBase& card, const Assembly& assembly, double opening_rad);

} // namespace hinge
