// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/vectors.h"
#include <array>
#include <vector>

namespace hinge {

/// A convex flat thing of some thickness. `corners` go round it in its middle plane, `normal` is of
/// length 1, `from_mm` and `to_mm` are its two sides along the normal, 0 in that plane.
struct ConvexSlab {
  std::vector<Vec3> corners;
  Vec3 normal = Vec3::UnitZ();
  double from_mm = 0, to_mm = 0;
  std::vector<Vec3> edges = {}; ///< their directions, as edgesOf() gives them
};

/// The directions of the edges of a slab. Of parallel ones, such as the two pairs that most panels
/// have, one says all.
std::vector<Vec3> edgesOf(const ConvexSlab& slab);

/// `slab` moved by `by` into `out`, which keeps its room from call to call.
void move(const ConvexSlab& slab, const Iso3& by, ConvexSlab& out);
ConvexSlab moved(const ConvexSlab& slab, const Iso3& by);

/// How far apart two slabs are (mm; negative: how far one has to move for them to be clear): the
/// largest gap along any of the directions that can part them, which are the normals of their sides
/// and what stands upright on an edge of each (the separating axes of convex bodies). The answer is
/// exact below `enough_mm`; the search for a wider gap ends there.
double gapBetween(const ConvexSlab& a, const ConvexSlab& b, double enough_mm = 1e300);

/// What can be said of two slabs from the beginning of an interval to its end.
struct GapThrough {
  bool parted = false;  ///< one of the directions parts them all the way by the gap that is wanted
  double middle_mm = 0; ///< when none does: how far apart they are in the middle
};

/// The second slab in the frame of the first at the beginning, in the middle and at the end. That a
/// direction parts them between these is an estimate: from the second difference of the gap along
/// it, and a quarter of the first.
GapThrough gapThrough(const ConvexSlab& a, const std::array<ConvexSlab, 3>& b, double wanted_mm);

/// The corner of one that is nearest to the other's plane and lies over it; roughly their place.
Vec3 placeBetween(const ConvexSlab& a, const ConvexSlab& b);

/// A box along the axes of a frame.
struct AxisBox {
  Vec3 middle = Vec3::Zero(), half = Vec3::Zero();

  std::array<Vec3, 8> corners() const;
  /// The box round this one in another frame, into which `there` leads.
  AxisBox seenThrough(const Iso3& there) const {
    return {there * middle, there.linear().cwiseAbs() * half};
  }
};

/// A box round slabs of one frame, with their thickness.
AxisBox boxOf(const std::vector<ConvexSlab>& slabs);

/// How far apart two boxes of one frame are along its axes, at least; negative when none parts
/// them.
double gapBetween(const AxisBox& a, const AxisBox& b);

} // namespace hinge
