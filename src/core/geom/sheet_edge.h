// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/polygon.h"
#include <array>
#include <optional>
#include <string_view>

namespace hinge {

/// A side of a sheet, or of one of its panels, as the sheet is drawn flat.
enum class SheetEdge { Left, Right, Bottom, Top };
/// The words for them in sentences and files, in their order.
inline constexpr std::array<std::string_view, 4> kSideWords{"left", "right", "bottom", "top"};
std::string_view wordOf(SheetEdge side);
/// The side as it is when left and right are exchanged.
SheetEdge exchanged(SheetEdge side);
/// Away from the paper, unit length.
Vec2 outOf(SheetEdge side);
/// The side that looks most nearly in a direction.
SheetEdge sideTowards(const Vec2& out);

/// The edge of a rim on one side: the longest of those that lie on its bounding box; where there is
/// none, the longest that looks nearly there (by less than 45 degrees).
std::optional<std::size_t> edgeOnSide(const Polygon& rim, SheetEdge side);

} // namespace hinge
