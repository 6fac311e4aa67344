// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

/// A wall that stands on its host along the line at which its tab is glued on. As planes the two
/// meet only in that line wherever the wall goes; the tab says on which side it belongs.
struct GlueLine {
  PanelIndex wall, tab, host;
  Vec3 into;   ///< from the line into the wall, in the wall's piece
  Vec3 side;   ///< out of the host on the glued side, in the host's piece
  Vec2 middle; ///< of the line, in the host's piece

  bool placedIn(const Pose& pose) const { return pose.placed[wall] && pose.placed[host]; }
  /// The sine of the angle at which the wall rises on the glued side; negative: it goes through its
  /// host.
  double rise(const Pose& pose) const {
    return (pose.panels[wall].linear() * into).dot(pose.panels[host].linear() * side);
  }
};

/// Paper that lies on its host may seem this far behind it.
constexpr double kLiesOn_rad = radians(0.5);

/// All of them, but for those at the edge of their host: there a wall is free to swing to both
/// sides.
std::vector<GlueLine> glueLines(const Assembly& assembly);

} // namespace hinge
