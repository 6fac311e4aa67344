// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/model/planned.h"
#include "words/plan_words.h"
#include "words/tables.h"

namespace hinge {

/// A heading with what stands under it, a line each.
struct BookletSection {
  std::string heading;
  std::vector<std::string> lines;
};

/// What a booklet of the work says, in the user's language and the card's unit.
struct BookletWords {
  std::string title, about;             ///< "150 x 210 mm shut, ...; 44 steps, ..."
  std::vector<BookletSection> sections; ///< papers, adhesives, tools, cautions
  std::vector<ReadTable> tables;        ///< of letters, then where to score and cut
  std::vector<StepWords> steps;
};
BookletWords bookletWords(const PlannedWork& work, const CutPlan& sheets, const Bench& bench);

} // namespace hinge
