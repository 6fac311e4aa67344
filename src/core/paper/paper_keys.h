// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string_view>

namespace hinge {

// The words of files, the card on one page and the command line for what a paper is, in the order
// of Surface, Grain and PatternWay.

inline constexpr std::string_view kSurfaceKeys[] = {"matt", "gloss", "foil", "film"};
inline constexpr std::string_view kGrainKeys[] = {"unknown", "long", "short"};
inline constexpr std::string_view kWayKeys[] = {"none", "along", "both"};

} // namespace hinge
