// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "words/tables.h"
#include <set>

namespace hinge {

struct FittedLength {
  Text label;
  double from_mm = 0, to_mm = 0; ///< the same when it was held
};

/// The tables of a card that is fitted to a sheet of another flat length.
struct FittedTables {
  std::vector<ReadTable> tables;
  std::vector<FittedLength> lengths; ///< what was held and what gave
};

/// Fits the card (see fittedTo) with what is held as a rule, and what is held besides.
Result<FittedTables> tablesFitted(const Design& design, double flat_mm, std::set<std::string> held,
                                  const Bench& bench);

} // namespace hinge
