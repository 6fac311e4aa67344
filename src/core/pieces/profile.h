// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/piece_work.h"
#include "core/motion/motion.h"
#include "core/units/length.h"

namespace hinge {

/// A strip seen from its side, as its maker thinks of it: where its ends and scores are, square to
/// them. x runs along the table, y up from it; mm.
struct FoldProfile {
  std::vector<Vec2> corners;      ///< left end, scores from the left, right end
  std::vector<std::size_t> lines; ///< of the work, for each score
  std::vector<Polygon> pages;     ///< of the base, seen the same way
  /// Between the two panels beside a score on the side of the smaller angle, 0 to 180.
  double angle_deg(std::size_t score) const;
  double height_mm(std::size_t score) const { return corners[score + 1].y(); }
};

/// The profile of a piece in a pose; `bench` maps the world so that the table is level. Nothing for
/// a piece without scores from edge to edge, or one that is not placed.
std::optional<FoldProfile> profileOf(const Assembly& assembly, const Pose& pose, const Iso3& bench,
                                     StructureId piece, const PieceWork& work);

/// What a maker wants of a ridge; what is not said stays as near as it can.
struct RidgeWish {
  std::optional<double> height_mm, angle_deg;
};

/// Reads "40 high at 90", "40", "at 90deg".
Result<RidgeWish> ridgeWish(std::string_view text, LengthUnit unit);

/// The sheet whose score comes to lie so when the scores beside it stay where they are: the widths
/// of the two panels beside it change. Both wishes: of the two places where that is so the nearer
/// one; height alone: straight up or down; angle alone: square to the line between its neighbours.
/// Fails when no two panels reach.
Result<PieceWork> withRidge(const PieceWork& work, const FoldProfile& profile, std::size_t score,
                            const RidgeWish& wish);

} // namespace hinge
