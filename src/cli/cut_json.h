// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/rounding.h"
#include "core/production/cut_plan.h"
#include "core/production/score_table.h"
#include "core/production/spliced.h"
#include "core/sending/talk.h"
#include <string>

namespace hinge {

// What the verbs of the cutting table print with --json. Keys are a contract: extended, never
// renamed.

/// {"step_mm","lengths","conditions","greatest_mm","sum_mm","changes":[{"key","label","from_mm",
/// "to_mm"}],"left":[{"owner","why"}]}
std::string roundingToJson(const Rounding& rounding, double step_mm);
/// {"trimmer_mm",...,"sides","length","order","first"}
/// "strokes", "lowered_mm", "raised_mm", "seconds", "speed_cms", "force_g"; "ended" when it was
/// sent: "done" or "stopped".
std::string cutterJobToJson(const CutterJob& job, std::optional<CutterEnd> ended);
/// "splices" that there are and "proposed", each with "piece", "splices", "seen", "tab_hidden" and
/// the sheet that would spare it ("spared_mm").
std::string splicesToJson(const Design& design, const std::vector<SpliceProposal>& proposals,
                          const Assembly& assembly);
std::string benchToJson(const Bench& bench);
/// [{"letter","name","paper","count","same":[piece keys],"mirrored":[...],"handed","width_mm",
/// "height_mm","rectangle","notes":[...],"scores":[{"way","kind","back","first_mm","other_mm",
/// "step_mm","from_mm","to_mm" of slanted ones as points,"stretches":[[from, to]],"whole","first",
/// "set_other","text"}],"cuts":[{"what","from","to","depth_mm","bevel_deg","letter"}]}]
std::string tablesToJson(const std::vector<PieceTable>& tables, const Design& design,
                         const Assembly& assembly, const Bench& bench);

/// {"for","cards_from_stock","ends_first","waste","kept","settings","parts":[{"part","key","paper",
/// "card","mirrored","width_mm","height_mm","outline","holes","turns"}],"sheets":[{"paper",
/// "width_mm","height_mm","places":[{"part","quarters","offset","outline","holes"}],"offcuts":[[x,
/// y, width,
/// height]]}],"cuts":[{"blank","set_mm","upright","setting","strip","rest"}],"needs":[{"paper",
/// "width_mm","height_mm","sheets","at_hand","to_buy"}],"too_large":[...],"no_sheet":[...]}; parts
/// and blanks are counted from 1, blanks begin with the sheets.
std::string planToJson(const CutPlan& plan, const Design& design, const Assembly& assembly,
                       const std::optional<CardsFromStock>& enough);

} // namespace hinge
