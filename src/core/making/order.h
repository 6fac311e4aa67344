// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

/// Joints that the hand makes as one: mostly a single one, or all slots between the same two
/// pieces, which are pushed together at once. Never empty; the first one names them.
using JointGroup = std::vector<JointIndex>;

/// One step of the work: a joint, or several that can only be made together, before the glue sets.
struct MakingStep {
  std::vector<JointGroup> joints;
  /// The step after which these joints cannot be reached any more (index in AssemblyOrder::steps);
  /// -1: at any time.
  int before = -1;
  bool byShutting = false; ///< no finger gets there any more: the card is shut on it
};

/// An order in which the flat pieces become the card.
struct AssemblyOrder {
  std::vector<MakingStep> steps;
  std::vector<JointGroup> unreachable; ///< joints that no order leaves room for
};

/// Takes the finished card apart, joint by joint, and turns the order round. A joint comes undone
/// when the hand reaches it: glued and slotted panels must be able to part from one another in the
/// motion that the other joints leave (rigid panels, free hinges), nothing that is made may rise
/// through what is glued on, and glue, a pin, or the ends of a band need room for a finger. Glue on
/// a page that no order leaves room for is pressed by shutting the card on it. Taking a joint away
/// never makes another harder to reach, so an order is found whenever there is one with these
/// steps. Cost: linear in joints times panels; a singular value decomposition for a joint within a
/// ring, some thousand rays for a pin or band. A band is tied where it pulls to: at the opening at
/// which the card is shown.
AssemblyOrder assemblyOrder(const Motion& motion, double shown_rad);

} // namespace hinge
