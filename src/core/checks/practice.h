// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/checks/analysis.h"
#include <set>

namespace hinge {

/// A small card of its own with nothing but these structures and what they stand on, undressed, to
/// practise on: its pages end a little beyond them when the base is a single fold and the card is
/// still good then. Fails when nothing is left of it.
Result<Design> practiceOf(const Design& design, const std::set<StructureId>& wanted,
                          std::stop_token stop = {});

} // namespace hinge
