// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/structures/common.h"

namespace hinge {

/// A belt of walls on a fold: two walls that stand along the bisector of the seat, joined at their
/// ends by walls with a crease in the middle, with or without a lid over them and a wall in the
/// middle. Closed boxes, cubes, platforms and tiers are belts. Kinematics "c. Box" and "d. Floating
/// platform".
enum class LidKind { None, Rises, Sinks };
struct BeltSizes {
  double position = 0, length = 0; ///< of the walls, along the fold
  double a = 0, h = 0;             ///< foot and height of the walls
  double e = 0;                    ///< half an end: from corner to crease, at least a
  bool inward = false, nearEnd = true, farEnd = true;
  LidKind lid = LidKind::None;
  bool twoParts =
      false;         ///< the lid is cut as two halves, one glued under the other along the crease
  double l = 0;      ///< half the lid between its crease and a wall, at least a
  double over = 0;   ///< how far the lid stands over the walls
  double corner = 0; ///< cut off the lid's four corners
  bool middleWall = false; ///< under the crease of a sinking lid with l = a
  int inner = 0;           ///< walls between each wall and the middle, under such a lid
};

/// What the belt is called: "mark" goes before the keys of its parts ("tier-2-"), and which tier of
/// several it is (1 or 0: the only or lowest one, which is not told).
struct BeltNames {
  Text piece, lid;
  std::string mark = {};
  int tier = 0;
};

/// Builds the belt on `seat` and its seats; returns that on the crease of the lid (of a belt
/// without a lid: the seat itself).
Seat buildBelt(const RecipeInput& in, AssemblyBuilder& builder, const Seat& seat,
               const BeltSizes& sizes, const BeltNames& names);

/// Whether the lid of a belt can stand on a wall in the middle and on inner walls: it sinks, and is
/// as wide as the foot.
Result<void> carriesInnerWalls(const BeltSizes& sizes, const std::string& place);

/// Room of a belt: out from the fold and along it, relative to its position.
Room beltRoom(const BeltSizes& sizes);

} // namespace hinge
