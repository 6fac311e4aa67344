// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/region.h"

namespace hinge {

/// Lines across a sheet, parted into faces.
struct Subdivision {
  struct Border { ///< a straight stretch of a line with one face on each side
    std::size_t line;
    std::size_t left, right; ///< faces
    Vec2 from, to;           ///< left is on its left hand
  };
  /// By the middle of their rims from left to right, then upwards. A face round an island of lines
  /// has that for a hole.
  std::vector<Region> faces;
  std::vector<Border> borders;
  std::vector<std::pair<std::size_t, Edge>>
      loose; ///< stretches of lines with one face on both sides: they part nothing
};

/// Parts a region along lines (which may cross, meet and end anywhere inside it). What is
/// closer than 1e-6 mm is one point. Cost: O(n^2) in the number of edges and lines.
Subdivision subdivide(const Region& outline, const std::vector<Edge>& lines);

} // namespace hinge
