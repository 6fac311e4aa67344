// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/proportion.h"
#include <stop_token>

namespace hinge {

/// The flat length nearest to the one wanted, on the way there from the present one, at which the
/// card (or the free piece in it) is not spoiled, on the lattice of the design's unit; nothing when
/// there is none in a score of tries. Cost: about 20 analyses.
std::optional<double> nearestFit_mm(const Design& design, std::optional<StructureId> piece,
                                    double wanted_mm, const std::set<std::string>& held,
                                    std::stop_token stop = {});

} // namespace hinge
