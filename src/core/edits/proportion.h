// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/edits.h"
#include "core/structures/ways.h"
#include <set>

namespace hinge {

/// The lengths of the whole design, or of one free piece (its panels).
std::vector<LengthRow> lengthRows(const Design& design, std::optional<StructureId> piece = {});

/// How long the sheet of the base lies flat, across its folds; of a free piece its width.
Result<double> flatLength_mm(const Design& design, std::optional<StructureId> piece = {});

/// A design re-proportioned.
struct Fitted {
  Design design;
  double factor = 1; ///< by which everything that gives has grown
};

/// The card's sheet, or the free piece, at another flat length: everything that is not held grows
/// by one factor, so that what lay flat lies flat. Free pieces keep their glued panels; their feet,
/// windows and joints move in proportion. Fails when nothing gives, or when a size would leave its
/// range.
Result<Fitted> fittedTo(const Design& design, std::optional<StructureId> piece, double length_mm,
                        const std::set<std::string>& held);

} // namespace hinge
