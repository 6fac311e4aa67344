// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/paper/starting_values.h"
#include "core/pieces/worked_piece.h"
#include <functional>

namespace hinge {

/// What joints need to know besides what their maker gave.
struct JoinedHow {
  double thickness_mm = starting::kCardThickness_mm; ///< of the piece's own paper
  std::string place;                                 ///< what errors name
  std::size_t sheet = 0;                             ///< of a base of sheets
  /// By how much the piece has been moved along a face since its joints were given.
  std::function<Vec2(const SeatSide& face)> moved = [](const SeatSide&) { return Vec2(0, 0); };
  /// Of the paper on which a face is: what stands in the piece's slits. Empty: as thick as its own.
  std::function<double(std::string_view face)> faceThickness_mm = {};
};

/// Makes the joints that a maker gave for a piece being built, in their order, each where its rules
/// or numbers place it. Slits of a slot are cut into both panels. Refuses a face that is not there.
Result<void> joinPiece(AssemblyBuilder& builder, const PieceWork& work, const WorkedPiece& made,
                       const JoinedHow& how);

} // namespace hinge
