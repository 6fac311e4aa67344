// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/vectors.h"
#include <optional>
#include <string_view>
#include <vector>

namespace hinge {

/// One stretch of path data without a gap.
struct SvgStretch {
  std::vector<Vec2> points;
  bool closed = false;
};

/// Path data of SVG 1.1, all commands, curves as chords within `off` (in the path's own units).
/// What stands before an error is kept, as the format wants it; `wrong` receives where it stopped.
std::vector<SvgStretch> svgPath(std::string_view data, double off,
                                std::optional<std::size_t>& wrong);

/// Numbers parted by spaces or commas.
std::vector<double> svgNumbers(std::string_view text);

/// A map of the plane: 2 x 3, applied from the left.
struct SvgMap {
  double a = 1, b = 0, c = 0, d = 1, e = 0, f = 0;
  Vec2 operator*(const Vec2& p) const {
    return {a * p.x() + c * p.y() + e, b * p.x() + d * p.y() + f};
  }
  SvgMap operator*(const SvgMap& inner) const;
  double scale() const; ///< by how much lengths grow, at most
};
/// "translate(3,4) rotate(30)"; nothing when it is not understood.
std::optional<SvgMap> svgTransform(std::string_view text);

} // namespace hinge
