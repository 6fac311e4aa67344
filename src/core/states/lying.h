// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

/// Which way and in which order panels lie on one another that the motion has in one plane: what is
/// glued on over its host, what slides over what carries it, what is folded over for good over what
/// it is folded onto. Pictures and sight need some distance between them.
class Lying {
public:
  /// Both must outlive it.
  Lying(const Assembly& assembly, const Pose& pose);

  static constexpr double kStep_mm = 0.03; ///< from one to the next
  /// How far a panel is to be moved off its pose, in the world frame.
  Vec3 off_mm(PanelIndex panel);

private:
  Vec3 byJoint_mm(PanelIndex panel);
  Vec3 folded_mm(PanelIndex panel);

  const Assembly& m_assembly;
  const Pose& m_pose;
  IndexedVector<PanelIndex, int> m_rank;     ///< how near to the page on the table a page hangs
  IndexedVector<PanelIndex, char> m_finding; ///< whose place is just being worked out
};

} // namespace hinge
