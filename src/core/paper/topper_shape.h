// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/region.h"
#include <span>
#include <string_view>

namespace hinge {

/// A shape that toppers are cut to; called "topper.KEY" in words/, and what its detail does
/// "topper.KEY/detail".
struct TopperShape {
  std::string_view key;
  double usualWidth_mm, usualHeight_mm, usualDetail;
  /// In a box of 1 by 1 about the origin, y up; detail 0 to 1.
  Region (*outline)(double detail);
};

std::span<const TopperShape> topperShapes();
const TopperShape* findTopperShape(std::string_view key);

/// A shape in millimetres about its middle.
Region topperOutline(const TopperShape& shape, double width_mm, double height_mm, double detail);

} // namespace hinge
