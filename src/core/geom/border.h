// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/region.h"
#include <functional>

namespace hinge {

/// The region less a border that is wider along some edges than along others: `border_mm` tells it
/// for an edge (the paper on its left hand), measured square to that edge. At corners that stand
/// into the paper the border is mitred, or follows an arc when both its edges have the same width,
/// or ends square to both where a mitre would leave less than the wider one along its edge.
/// What is parted by the border comes back in parts.
std::vector<Region> withoutBorder(const Region& region,
                                  const std::function<double(const Edge&)>& border_mm,
                                  CornerStyle corners = CornerStyle::Sharp);

/// Whether some of the paper is narrower than this between two edges, beyond rounding its corners;
/// and where.
std::optional<Vec2> narrowPlace(const Region& region, double least_mm);

/// The point of an edge that is nearest to another point.
Vec2 nearestOn(const Edge& edge, const Vec2& at);

} // namespace hinge
