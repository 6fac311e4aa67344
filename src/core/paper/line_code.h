// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The colours of our line code, on screen and in files. Each kind of line also has a pattern of its
// own, so that no line hangs on its colour. Contrast on the sheet's warm white is 4.5 : 1 or more.
namespace hinge::line_code {

constexpr char kCut[] = "#26242b";      ///< ink, a plain line
constexpr char kMountain[] = "#6a2456"; ///< aubergine, long dashes with two beats
constexpr char kValley[] = "#855c00";   ///< ochre, beads
constexpr char kGlue[] = "#5d8036";     ///< moss, slanted strokes
constexpr char kMark[] = "#9a958c";     ///< pencil, fine dots
constexpr char kText[] = "#5d574f";

} // namespace hinge::line_code
