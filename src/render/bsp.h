// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/vectors.h"
#include <vector>

namespace hinge {

/// A flat convex face in space, to be drawn. `edges[i]` says whether the edge from corner i is a
/// real edge of the panel or only came from a cut.
struct SpaceFace {
  std::vector<Vec3> corners;
  std::vector<char> edges;
  Vec3 normal = Vec3::UnitZ();
  int source = -1; ///< the caller's number
};

/// Faces from back to front as seen from `eye`, split where they cross or overlap cyclically
/// (binary space partition). Faces of zero area are dropped. Cost about n log n without splits, n^2
/// at worst.
std::vector<SpaceFace> backToFront(std::vector<SpaceFace> faces, const Vec3& eye);

} // namespace hinge
