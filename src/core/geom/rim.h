// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/geom/region.h"
#include <optional>

namespace hinge {

// What hands do to the rim of a sheet. Rims are simple polygons in mm, either direction of travel.

/// The end of a line where the rim has got to: on along the line from `other` or back, to the
/// crossing that is nearest. As it is when it lies on the rim or no crossing is there.
Vec2 endOnRim(const Polygon& rim, const Vec2& end, const Vec2& other);

/// The points in place of a corner that is rounded, as chords within 0.05 mm of the arc; nothing
/// when the edges beside it are too short or the corner is none.
std::optional<std::vector<Vec2>> roundedCorner(const Polygon& rim, std::size_t corner,
                                               double radius_mm);
/// The two points in place of a corner that is cut off, each so far from it along its edge.
std::optional<std::vector<Vec2>> snippedCorner(const Polygon& rim, std::size_t corner,
                                               double back_mm);

/// An edge (from corner `edge` to the next) moved square to itself, away from the paper; its ends
/// run along the edges beside it, or straight out where these are nearly parallel to it. A rounded
/// corner goes along as it is.
Polygon withEdgeOut(const Polygon& rim, std::size_t edge, double out_mm);

/// The normal of an edge that looks away from the paper (unit length).
Vec2 outwards(const Polygon& rim, std::size_t edge);

/// A rectangle from corner to corner, and a disc whose chords lie within 0.05 mm of it.
Polygon rectangle(const Vec2& corner, const Vec2& other);
constexpr std::size_t kLeastDisc = 12; ///< corners
Polygon disc(const Vec2& middle, double across_mm);
/// A piece of a ring about `middle`, between two radii, `sweep_deg` wide, the middle of it in the
/// direction `towards_deg`; its chords lie within 0.05 mm of the arcs. A whole ring has no outline:
/// at most 350 degrees.
Polygon ringSegment(const Vec2& middle, double inner_mm, double outer_mm, double towards_deg,
                    double sweep_deg);

/// A line with some room on all its sides: a rectangle.
Region roomAlong(const Edge& line, double room_mm);

} // namespace hinge
