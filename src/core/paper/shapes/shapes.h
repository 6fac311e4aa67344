// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/region.h"

namespace hinge::shapes {

// What shapes are drawn from, in a box of 1 by 1 about the origin.

/// Points of an ellipse about `middle`, from one angle to another (degrees, anticlockwise when the
/// second is larger), both ends among them.
Polygon arc(const Vec2& middle, double halfWidth, double halfHeight, double from_deg, double to_deg,
            int steps = 16);
/// One polygon after the other.
Polygon joined(std::initializer_list<Polygon> parts);
/// The right half, from the foot up, and its mirror image.
Polygon bothSides(const Polygon& rightHalf);

// One function a shape, each in a file of its name. What the detail does stands in words/.
Region tag(double detail);
Region banner(double detail);
Region disc(double detail);
Region ring(double detail);
Region arch(double detail);
Region awning(double detail);
Region lantern(double detail);
Region boat(double detail);
Region gull(double detail);
Region wave(double detail);
Region house(double detail);
Region moon(double detail);
Region star(double detail);
Region fish(double detail);
Region parasol(double detail);
Region cloud(double detail);
Region leaf(double detail);
Region lampPost(double detail);

} // namespace hinge::shapes
