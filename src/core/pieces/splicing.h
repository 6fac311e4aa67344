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

/// Where a splice lies. Errors: "splice.no-panel", "splice.tab" (the panel is one itself),
/// "splice.outside" (with what room there is), "splice.fold" (other panels are cut through too),
/// "splice.opening" (the overlap is no one piece of paper).
Result<LaidSplice> laidSplice(const Assembly& assembly, const Splice& splice);

} // namespace hinge
