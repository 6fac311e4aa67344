// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"
#include <array>
#include <utility>

namespace hinge {

/// Poses at the beginning, in the middle and at the end of an interval of openings.
using ThreePoses = std::array<const Pose*, 3>;

/// The openings of a motion in stretches in which nothing driven turns by more than `coarsest_rad`.
/// Blocks reach different openings, and drives begin and end at some: within a stretch the same
/// panels are present throughout, and no drive begins or ends. Those shorter than `finest_rad` are
/// left out.
std::vector<std::pair<double, double>> stretchesOf(const Motion& motion, double coarsest_rad,
                                                   double finest_rad);

/// True when the panel has a place in all three.
bool present(PanelIndex panel, const ThreePoses& at);

/// A box, along the axes of the world, that something keeps within over an interval.
struct SweptBox {
  Vec3 low = Vec3::Constant(1e300), high = Vec3::Constant(-1e300);
  int what = 0; ///< whose box it is
};

/// The box of corners that move with a panel: three poses, widened by the bend of the path (an
/// estimate from the second difference) and by a margin.
SweptBox sweptBox(const std::vector<std::vector<Vec3>>& corners, PanelIndex panel,
                  const ThreePoses& at, double margin_mm);

/// All pairs of boxes that meet, the lower number first. Cost: n log n for boxes that are spread
/// along y, the direction of the gutter.
std::vector<std::pair<int, int>> meetingBoxes(std::vector<SweptBox> boxes);

} // namespace hinge
