// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/model/planned.h"
#include "core/production/cut_plan.h"
#include "core/production/score_table.h"
#include <string>
#include <vector>

namespace hinge {

/// One thing that is read from a metre away: a number as large as it goes, and what it is of.
struct BenchNumber {
  std::string number; ///< "35.5 mm"; empty: there is none
  std::string of;     ///< "Warehouse (B), 2 of 8 scores"
};

/// The numbers of a step, in the order in which they are set; one at least, which may be empty:
/// every score of every piece, sizes of what is cut, pencil marks, what is measured, what is
/// waited for.
std::vector<BenchNumber> benchNumbers(const PlannedWork& work, std::size_t step,
                                      const std::vector<PieceTable>& tables, const Bench& bench);

/// What has to be cut again, and from which sheets of a layout: their number and paper.
std::string sayAgain(const std::vector<PieceIndex>& pieces, const CutPlan& sheets,
                     const PlannedWork& work);

} // namespace hinge
