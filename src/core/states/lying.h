// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"
#include "core/states/in_plane.h"
#include <span>

namespace hinge {

/// A panel that lies on another one by a joint, so far off it.
struct LiesOnPanel {
  PanelIndex host; ///< not valid: on none
  Vec3 by_mm = Vec3::Zero();
  bool packed = false; ///< comes made, as part of something that is shut
};

/// Which way and in which order panels lie on one another that the motion has in one plane: what is
/// glued on over its host, what slides over what carries it, what is folded over for good over what
/// it is folded onto; of any two sheets the one over the other that findInPlaneHits() has found so,
/// where that is known. Pictures and sight need some distance between them.
class Lying {
public:
  /// Nothing of these is kept.
  Lying(const Assembly& assembly, const Pose& pose, std::span<const SheetOrder> order = {});

  static constexpr double kStep_mm = 0.03; ///< from one to the next
  /// How far a panel is to be moved off its pose, in the world frame.
  Vec3 off_mm(PanelIndex panel) const { return m_off[panel]; }
  /// Whether joints say which of two lies over the other: it lies on that, they lie on two sides of
  /// something, or in one small card that is shut. What else lies apart does so by chance.
  bool areJoined(PanelIndex a, PanelIndex b) const;

private:
  IndexedVector<PanelIndex, LiesOnPanel> m_lies;
  IndexedVector<PanelIndex, Vec3> m_off;
};

} // namespace hinge
