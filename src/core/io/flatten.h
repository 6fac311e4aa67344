// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/vectors.h"
#include <vector>

namespace hinge {

// Curves as chords within `off` of them. Each adds its points behind the first, which is there.

void addCubic(std::vector<Vec2>& points, const Vec2& a, const Vec2& b, const Vec2& c, const Vec2& d,
              double off);
/// An arc of an ellipse with two conjugate half axes, from one angle to another (rad).
void addArc(std::vector<Vec2>& points, const Vec2& middle, const Vec2& axisX, const Vec2& axisY,
            double from_rad, double to_rad, double off);
/// From one corner to the next by a bulge: the tangent of a quarter of the arc's angle, positive
/// counter-clockwise.
void addBulge(std::vector<Vec2>& points, const Vec2& from, const Vec2& to, double bulge,
              double off);
/// A spline of a degree over control points and knots; what does not fit together is straight.
void addSpline(std::vector<Vec2>& points, const std::vector<Vec2>& control,
               const std::vector<double>& knots, int degree, double off);

} // namespace hinge
