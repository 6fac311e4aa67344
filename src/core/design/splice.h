// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

namespace hinge {

/// Where a piece that is longer than every sheet is parted: a cut through one of its panels from
/// border to border, and a tab behind it that holds both parts as one panel.
struct Splice {
  std::string panel;      ///< key of the panel that is cut through
  double at_mm = 0;       ///< of the cut, from that panel's left border in its flat piece
  bool level = false;     ///< the cut runs level, and is measured from the lower border
  double overlap_mm = 12; ///< of the tab, which belongs to the part on the left (below)
  bool onFace = false;    ///< the tab lies on the face of the other part, not behind it
  bool operator==(const Splice&) const = default;
};

constexpr double kLeastOverlap_mm = 5, kMostOverlap_mm = 60;
constexpr std::size_t kMostSplices = 200;

} // namespace hinge
