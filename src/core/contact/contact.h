// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"
#include <span>
#include <stop_token>

namespace hinge {

/// Two panels that pass through one another.
struct Contact {
  PanelIndex first, second;
  double from_rad = 0, to_rad = 0; ///< first and last opening
  double depth_mm = 0; ///< how far they would have to give way there, at the worst opening
  double deepest_rad = 0;
  Vec3 place =
      Vec3::Zero(); ///< middle of the line in which they cross at the worst opening, world frame
};

/// How closely contacts are looked for, and between what.
struct ContactOptions {
  double tolerance_mm = 0.05;        ///< shallower crossings are touching paper
  double finest_rad = radians(0.01); ///< intervals are halved down to this
  double coarsest_rad =
      radians(12.0);             ///< longest interval on which the bound of the motion is trusted
  std::vector<StructureId> only; ///< when not empty: only pairs with a panel of one of these
};

/// What the search found, and how much of it was shown rather than sampled.
struct ContactReport {
  std::vector<Contact> contacts;
  int intervals = 0; ///< pair intervals shown clear by a plane and the margin
  int touching =
      0; ///< pair intervals in which the panels touch, shallower than the tolerance throughout
  int sampled = 0;      ///< pair intervals of the finest size that were only sampled clear
  bool complete = true; ///< false after a stop request
};

/// All crossings over the openings the motion reaches, pages included. Every pair of panels is
/// shown clear on an interval by a plane that moves with one of them and keeps the other's corners
/// on its far side, with a margin from the second difference of the motion in three samples. That
/// is an estimate of the bound, not a proof; what it is worth is measured (decision 15). Intervals
/// that cannot be shown clear are halved. Panels of one body are compared once only, since they
/// never move against each other; tabs that lie inside their host are skipped. Cost: about n log n
/// in the number of panels for designs spread along a fold.
ContactReport findContacts(const Motion& motion, const ContactOptions& options = {},
                           std::stop_token stop = {});

/// Which paper counts for the depth of a crossing: all of both sheets (never too small, so that no
/// crossing is missed), or only what lies over their common line, square to it (how far they would
/// have to give way at that place).
enum class DepthOf { WholeSheets, Place };

/// Depth (mm) to which two planar sheets pass through each other: the least of the length of their
/// longest common line and of what stands over on each side of either plane; 0 when apart, touching
/// or coplanar. Each sheet as convex parts of one plane, corners in world coordinates. `place`
/// receives the middle of the common line.
double crossingDepth(std::span<const std::vector<Vec3>> a, std::span<const std::vector<Vec3>> b,
                     Vec3* place = nullptr, DepthOf which = DepthOf::WholeSheets);
inline double crossingDepth(const std::vector<Vec3>& a, const std::vector<Vec3>& b,
                            Vec3* place = nullptr, DepthOf which = DepthOf::WholeSheets) {
  return crossingDepth(std::span(&a, 1), std::span(&b, 1), place, which);
}

} // namespace hinge
