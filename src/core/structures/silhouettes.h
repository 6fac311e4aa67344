// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include <array>
#include <string_view>

namespace hinge {

/// Outlines that figures and windows are cut to, by number.
constexpr std::array<std::string_view, 8> kSilhouettes{"plain", "lantern", "boat",  "person",
                                                       "tree",  "heron",   "round", "arch"};
constexpr double kMostSilhouette = 7;
constexpr std::string_view kSilhouetteMeaning =
    "Outline that is cut: 0 plain, 1 lantern, 2 boat, 3 person, 4 tree, 5 heron, 6 round, 7 arch";

/// Outline in the unit box: x from -0.5 to 0.5, y from 0 to 1, foot in the middle below.
Polygon silhouette(int shape);
/// The one that "shape", "handed", "width" and "height" ask for, in millimetres with its foot in
/// the origin.
Polygon silhouetteOf(const ParameterValues& values);

/// Where "position", "up" and "turn" put the foot of an outline on a face: its frame in that of the
/// face.
struct FootOnFace {
  Vec2 foot, right, up;
  explicit FootOnFace(const ParameterValues& values);
  Iso3 frame() const { return planarFrame(foot, right, up); }
};

/// Starting width, height and place of a silhouette on a face: at most as large as the starting
/// values, at most these shares of the face's line and depth.
ParameterValues fitSilhouette(ParameterTable table, const Seat& seat, const Assembly& assembly,
                              double shareOfLength, double shareOfDepth);

} // namespace hinge
