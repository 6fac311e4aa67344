// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/builder.h"
#include "core/paper/starting_values.h"
#include <functional>

namespace hinge {

/// What joints need to know besides what their maker gave.
struct JoinedHow {
  double thickness_mm = starting::kCardThickness_mm; ///< of the piece's own paper
  std::string place;                                 ///< what errors name
  /// By how much the piece has been moved along a face since its joints were given.
  std::function<Vec2(const SeatSide& face)> moved = [](const SeatSide&) { return Vec2(0, 0); };
  /// Of the paper on which a face is: what stands in the piece's slits. Empty: as thick as its own.
  std::function<double(std::string_view face)> faceThickness_mm = {};
};

/// Makes the joint that a maker gave for `own`, a panel of the piece being built; `number` counts
/// from 1. Slits of a slot are cut into both panels. Refuses a face that is not there.
Result<void> joinPiece(AssemblyBuilder& builder, const PieceJoint& joint, std::size_t number,
                       PanelIndex own, const JoinedHow& how);

} // namespace hinge
