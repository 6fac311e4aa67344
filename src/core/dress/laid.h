// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/dress/layers.h"
#include "core/states/shut_state.h"

namespace hinge {

/// What makes the shut card thicker than its panels: layers as they are cut, and the pads of
/// toppers; tabs of splices. A springy strip lies flat in the shut card.
std::vector<LaidOn> everythingLaid(const Design& design, const Assembly& assembly,
                                   const KeyedVector<FaceIndex, Face>& faces,
                                   const std::vector<DressedFace>& dressed);

} // namespace hinge
