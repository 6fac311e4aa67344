// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/design.h"

namespace hinge {

/// A piece parted on one of its panels, where the splice says. Fails as laidSplice() does, and when
/// the tab would lie on that of another splice ("splice.meets").
Result<Design> withSplice(const Design& design, const Splice& splice);
/// All of these, one after another.
Result<Design> withSplices(Design design, const std::vector<Splice>& splices);
/// In one piece again there; `number` counts from 0. Error "splice.none".
Result<Design> withoutSplice(const Design& design, std::size_t number);

} // namespace hinge
