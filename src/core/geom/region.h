// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/polygon.h"

namespace hinge {

/// An area of paper in a flat frame (mm): a rim with holes in it. The rim runs counter-clockwise,
/// the holes clockwise; holes lie inside the rim and apart from one another. A plain polygon is a
/// region without holes.
struct Region {
  Polygon rim;
  std::vector<Polygon> holes;

  Region() = default;
  Region(Polygon outline) : rim(std::move(outline)) {} // NOLINT: a polygon is a region
  Region(std::initializer_list<Vec2> corners) : rim(corners) {}
  Region(Polygon outline, std::vector<Polygon> openings)
      : rim(std::move(outline)), holes(std::move(openings)) {}
  bool empty() const { return rim.size() < 3; }
  bool operator==(const Region&) const = default;
};

/// Rim and holes as a list of rings, the rim first.
std::vector<const Polygon*> ringsOf(const Region& region);
/// Edges of the rim and of the holes, the paper on their left hand.
std::vector<Edge> edgesOf(const Region& region);

Box2 boundsOf(const Region& region);
double area_mm2(const Region& region); ///< of the paper, without the holes; not negative
Vec2 centroidOf(const Region& region);

/// Inside or on an edge (within `margin_mm` off the paper counts as on).
bool contains(const Region& region, const Vec2& point, double margin_mm = 0.0);
double distanceToOutline(const Region& region, const Vec2& point); ///< to the rim or a hole

/// Splits a region into convex parts. Cost: O(n^2) in its corners.
std::vector<Polygon> convexParts(const Region& region);

/// The region in another planar frame; turned over when the map is a mirror in the plane, so that
/// the rim runs counter-clockwise again.
Region mapped(const Region& region, const Iso3& map);

constexpr double kLeastBridge_mm = 1; ///< of paper between a hole and an edge or another hole

/// The region with a hole (simple, either direction); nothing unless all of the hole lies inside of
/// it, at least `least_mm` from the rim and from other holes. O(n^2).
std::optional<Region> withHole(const Region& region, Polygon hole,
                               double least_mm = kLeastBridge_mm);

/// Lines that part a region with holes and with cuts (straight, inside of it, ending anywhere) into
/// faces that are simple polygons: a level line to both sides of every hole, and the cuts made
/// longer until they meet an edge or another cut. The cuts come first.
std::vector<Edge> partingLines(const Region& region, const std::vector<Edge>& cuts = {});

// Sums, differences and borders come from a clipping library on a lattice of kRegionLattice_mm;
// corners are moved by less than that. Parts smaller than a speck (kRegionSpeck_mm2) are dropped.
constexpr double kRegionLattice_mm = 1e-6;
constexpr double kRegionSpeck_mm2 = 1e-6;

std::vector<Region> united(const std::vector<Region>& regions);
std::vector<Region> without(const Region& region, const std::vector<Region>& taken);
std::vector<Region> common(const Region& a, const Region& b);

enum class CornerStyle { Sharp, Round };
/// The region with its border moved by `by_mm` to the outside, or to the inside when it is
/// negative: round holes too. What is narrower than the border disappears; what is parted by it
/// comes back in parts. Round corners stay within 0.01 mm of the arc.
std::vector<Region> offset(const Region& region, double by_mm,
                           CornerStyle corners = CornerStyle::Sharp);

/// Area that two regions share. Cost: O(n log n); nothing is clipped when their boxes are apart.
double overlapArea_mm2(const Region& a, const Region& b);

} // namespace hinge
