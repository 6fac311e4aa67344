#pragma once
#include "core/geom/polygon.h"
#include <array>
#include <string_view>

namespace hinge {

/// Outlines that figures and windows are cut to, by number.
constexpr std::array<std::string_view, 8> kSilhouettes{"plain", "lantern", "boat", "person", "tree", "heron", "round", "arch"};
constexpr double kMostSilhouette = 7;
constexpr std::string_view kSilhouetteMeaning = "Outline that is cut: 0 plain, 1 lantern, 2 boat, 3 person, 4 tree, 5 heron, 6 round, 7 arch";

/// Outline in the unit box: x from -0.5 to 0.5, y from 0 to 1, foot in the middle below.
Polygon silhouette(int shape);

} // namespace hinge
