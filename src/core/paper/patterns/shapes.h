// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/paper/pattern.h"

namespace hinge::patterns {

// What patterns are drawn from (mm, y up).

Polygon bar(double x, double y, double width_mm, double height_mm); ///< from its lower left corner
Polygon disc(const Vec2& middle, double radius_mm);
Polygon oval(const Vec2& middle, double halfWidth_mm, double halfHeight_mm);
Polygon star(const Vec2& middle, double radius_mm, int points);
/// A ribbon of even height round a curve y(x) from x 0 to `width_mm`.
Polygon ribbon(double width_mm, double thickness_mm, double (*curve)(double share), double base_mm,
               double swing_mm);

// One function a pattern, each in a file of its name.
PatternTile stripes(double repeat_mm, double share);
PatternTile dots(double repeat_mm, double share);
PatternTile lattice(double repeat_mm, double share);
PatternTile waves(double repeat_mm, double share);
PatternTile lanterns(double repeat_mm, double share);
PatternTile planks(double repeat_mm, double share);
PatternTile tiles(double repeat_mm, double share);
PatternTile nightSky(double repeat_mm, double share);
PatternTile bricks(double repeat_mm, double share);
PatternTile scales(double repeat_mm, double share);
PatternTile reeds(double repeat_mm, double share);
PatternTile pennants(double repeat_mm, double share);

} // namespace hinge::patterns
