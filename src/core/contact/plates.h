// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"
#include <stop_token>

namespace hinge {

/// A flat thing of some thickness that moves with a panel: the panel's own paper, a layer on it,
/// pads.
struct Slab {
  PanelIndex panel;
  Region onPiece;                ///< in the flat frame of the panel's piece
  double from_mm = 0, to_mm = 0; ///< along the normal of that frame, 0 in the middle of the paper
};

/// Two panels whose slabs need the same room for a part of the way.
struct PlateTouch {
  PanelIndex first, second;
  double from_rad = 0, to_rad = 0; ///< first and last opening
  double depth_mm = 0;             ///< how far they would have to give way, at most
  double deepest_rad = 0;
  Vec3 place = Vec3::Zero(); ///< near there, at the deepest opening, world frame
};

struct PlateOptions {
  double tolerance_mm = 0.2;           ///< paper gives as much without being noticed
  double coarsest_rad = radians(6.0);  ///< longest interval on which the bound is trusted
  double finest_rad = radians(0.1);    ///< intervals are halved down to this
  double settling_rad = radians(25.0); ///< see plateTouches
  std::vector<StructureId> only;       ///< when not empty: pairs with a panel of one of these
};

/// Where slabs that belong to different bodies need the same room. What meets by its making is left
/// out: panels with a fold, a foot or another joint between them (the caller sets slabs back from
/// their edges by what the paper takes), what touches all the way, and panels that as drawings
/// still meet in a corner or an edge where they have parted as paper. So is paper that lies on
/// paper: openings at which the panels are nearly parallel, and, where they come to lie on one
/// another, the last `settling_rad` of the way; that is for the stack of the shut card to judge
/// (decision 23). Panels whose place the opening does not decide are not looked at.
std::vector<PlateTouch> plateTouches(const Motion& motion, const std::vector<Slab>& slabs,
                                     const PlateOptions& options = {}, std::stop_token stop = {});

} // namespace hinge
