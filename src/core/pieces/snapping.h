// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/piece_work.h"

namespace hinge {

/// Why a point came to lie where it lies.
enum class SnapTo {
  Free,
  Lattice,
  Corner,
  End,
  Crossing,
  Middle,
  Rim,
  Line,
  Twin,
  EqualStep,
  Parallel
};

/// How a hand is helped to the places that a maker means. mm, in the flat frame of the piece.
struct Snapping {
  double lattice_mm = 0.5; ///< counted from the lower left corner of the bounding box; 0: none
  double reach_mm = 2;     ///< how near a place must be to be meant
  std::optional<std::size_t> line = {}; ///< the line being moved, which does not help itself
};

struct Snapped {
  Vec2 at = Vec2::Zero();
  SnapTo to = SnapTo::Free;
};

/// The nearest of, in this order: corners, ends of lines, where lines meet the rim or each other,
/// middles of edges and lines, the rim, lines; else the lattice. Cost: O(n^2) in the lines.
Snapped snappedPoint(const PieceWork& work, const Vec2& at, const Snapping& how);

/// The place nearest to a point on lines through `from` that run along another line or edge of the
/// sheet, or level or upright; nothing within reach.
std::optional<Vec2> snappedParallel(const PieceWork& work, const Vec2& from, const Vec2& at,
                                    const Snapping& how);

struct SnappedPlace {
  double at = 0;
  SnapTo to = SnapTo::Free;
};

/// The place of an upright score (axis 0: its x) or level one (axis 1: its y): the middle of the
/// sheet, the twin of another score, one more equal step beside two others, a corner of the
/// outline; else the lattice.
SnappedPlace snappedPlace(const PieceWork& work, int axis, double at, const Snapping& how);

} // namespace hinge
