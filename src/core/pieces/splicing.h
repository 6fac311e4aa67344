// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/base/result.h"
#include "core/design/splice.h"

namespace hinge {

/// A splice on the piece that it parts, in the piece's flat frame.
struct LaidSplice {
  PanelIndex panel;
  double cut_mm = 0; ///< x of the cut, y of a level one
  Region overlap;    ///< of the panel: where the tab lies, as wide as the panel there
  Region tab;        ///< a little narrower, so that it does not look out
};

/// What of a region lies between two places along an axis (0: x, 1: y).
std::vector<Region> between(const Region& region, Eigen::Index axis, double from, double to);

/// Where a splice lies. Errors: "splice.no-panel", "splice.tab" (the panel is one itself),
/// "splice.outside" (with what room there is), "splice.fold" (other panels are cut through too),
/// "splice.opening" (the overlap, or a side of the cut, is no one piece of paper).
Result<LaidSplice> laidSplice(const Assembly& assembly, const Splice& splice);

} // namespace hinge
