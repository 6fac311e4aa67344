// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "cli/options.h"
#include "core/model/snapshot.h"
#include "core/production/cut_plan.h"
#include "core/production/score_table.h"

namespace hinge {

/// The layout that the options ask for ("--for", "--cards", "--margin", "--gap", "--from-stock").
Result<CutPlan> planFor(const Options& o, const Snapshot& snapshot);
/// HPGL of the sheet that the options ask for.
Result<std::string> sheetAsHpgl(const Options& o, const Snapshot& snapshot);
Result<LayoutOptions> layoutOptions(const Options& o, LengthUnit unit);
/// Score and cut tables on the maker's bench, with what "--set" says otherwise.
struct BenchTables {
  Bench bench;
  std::vector<PieceTable> tables;
};
Result<BenchTables> tablesFor(const Options& o, const Snapshot& snapshot);

} // namespace hinge
