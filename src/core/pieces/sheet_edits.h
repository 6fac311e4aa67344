// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/piece_work.h"
#include <optional>

namespace hinge {

// What a hand does to a sheet with scissors and scoring tool. Points are in the flat frame of the
// piece, mm. Every function returns the sheet as it is then, or why paper cannot be so.

/// The stretch of the upright line through x, or of the level line through y, that lies in the
/// outline: from the first edge it meets to the last. Nothing when it misses the paper.
std::optional<Edge> acrossAt(const PieceWork& work, double x);
std::optional<Edge> alongAt(const PieceWork& work, double y);

/// The line nearest to a point among those within `reach_mm` of it; of two, the one put in last.
std::optional<std::size_t> lineAt(const PieceWork& work, const Vec2& at, double reach_mm = 0.5);

/// A band between two heights, from `left` to `right`, that folds the other way: it is cut along
/// both heights, the scores it spans come the other way round inside it (turned, as far from its
/// right end as they were from its left one) and are left to the joints, and its ends are scored
/// like the nearest score that it spans; an end that lies on a score folds in that one. Needs at
/// least one score that it spans.
Result<PieceWork> withReversed(const PieceWork& work, double left, double right, double low,
                               double high);

} // namespace hinge
