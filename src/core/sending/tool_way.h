// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/production/tool_path.h"

namespace hinge {

/// A knife that trails behind the middle of its holder, as drag knives do; a scoring tool has no
/// offset.
struct Blade {
  double offset_mm = 0;  ///< from the middle of the holder to the tip
  double overcut_mm = 0; ///< past the start of a closed cut, so that its corner comes free
};

/// The way of the holder's middle on which the tip of a blade follows a stroke, in the frame of the
/// stroke. The tool is down from the first point to the last. At corners the holder turns round
/// the tip. `heading` is the unit direction in which the blade looks before, and afterwards.
std::vector<Vec2> wayOf(const ToolStroke& stroke, const Blade& blade, Vec2& heading);

} // namespace hinge
