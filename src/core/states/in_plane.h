// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"
#include <stop_token>

namespace hinge {

/// Paper that would have to pass through paper in whose plane it lies, or through whose plane a
/// fold of it leads: seen as planes the two never cross.
struct InPlaneHit {
  PanelIndex first, second;
  double depth_mm = 0;             ///< how far one would have to give way
  double at_rad = 0;               ///< opening at which that shows most
  double from_rad = 0, to_rad = 0; ///< first and last opening
  Vec3 place = Vec3::Zero();
  bool byHand = false; ///< when a hand moves something at that opening
};

/// Two things that hands move, each free to move first and not both: what lies on top goes first.
struct HandsInTurn {
  PanelIndex one, other;
};

/// One of two sheets that lie on one another, from one opening of the card to another.
struct SheetOrder {
  PanelIndex under, over;
  bool onFace = true; ///< the one lies on the face of the other, else on its back
  double from_rad = 0, to_rad = 0;
  bool open = false; ///< nothing decides it: the other way round is as good
};

struct InPlaneReport {
  std::vector<InPlaneHit> hits;
  std::vector<SheetOrder> order; ///< one that is possible, for pictures and sight
  std::vector<HandsInTurn> inTurn;
  bool decided = true; ///< false: the search for an order was cut off
};

struct InPlaneOptions {
  double shown_rad = radians(90); ///< from where on hands lift, spin and pull
  std::vector<StructureId> only;  ///< when not empty: only pairs with a panel of one of these
};

/// Which of two sheets that lie in one plane lies on the other is a question with two answers. For
/// every pair of panels, as long as they lie on one another, one of them is right throughout.
/// Joints and marks of folds that are folded over decide some; nothing lies between what glue
/// holds together, nor between two leaves past their fold, and of three sheets on one another none
/// lies over and under the others. A leaf that rises from the plane does so clear of what lies over
/// its fold, and sheets come together and part on the side on which they lie. Where these leave no
/// answer paper would pass through paper.
///
/// Looked at in steps of the opening in which nothing driven turns by more than 4 degrees, and on
/// the way of everything that hands lift, spin or pull. The exact ends (the card shut, or open
/// flat) are left to the stack of the shut card. What follows from a fact is followed first; what
/// is left open is tried out. Cost: about n log n in the number of panels a step; only pairs in one
/// plane cost more.
InPlaneReport findInPlaneHits(const Motion& motion, const InPlaneOptions& options = {},
                              std::stop_token stop = {});

} // namespace hinge
