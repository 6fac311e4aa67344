// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/region.h"

namespace hinge {

/// A way to lay one region on another: turned by `turn_rad` (after it has been turned over, when
/// mirrored) and moved.
struct Congruence {
  bool mirrored = false;
  double turn_rad = 0;
  Vec2 move = Vec2::Zero();
  Vec2 operator()(const Vec2& p) const;
};

/// All ways in which `one` lies on `other` within `within_mm` at every corner; corners on a
/// straight edge do not count. O(n^2) in the corners of the rim. At most `most` are looked for.
std::vector<Congruence> congruences(const Region& one, const Region& other, double within_mm = 0.05,
                                    std::size_t most = 8);

} // namespace hinge
