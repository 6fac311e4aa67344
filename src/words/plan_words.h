// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/work_plan.h"
#include <string>
#include <vector>

namespace hinge {

/// A step of the work as it is read: what to do, then how, how long and what to look at.
struct StepWords {
  std::string what;
  std::vector<std::string> notes;
  std::vector<std::string> cautions;    ///< in full where they come first, short later
  std::vector<std::string> newCautions; ///< those of them that come first here
};

/// The notes that are to be read beside a step's picture: what that of pencil marks shows, with a
/// table of their places, need not be.
const std::vector<std::string>& notesBesidePicture(const WorkStep& step, const StepWords& words);

/// All steps in the user's language and the card's unit.
std::vector<StepWords> inWords(const WorkPlan& plan, const Design& design,
                               const Assembly& assembly);

/// What is otherwise in the second of two plans for the same card: joints made in another way or
/// with another adhesive, steps and time. Empty when nothing is.
std::string sayChange(const WorkPlan& before, const WorkPlan& after);

/// "20 seconds", "2 minutes", "3 h 5 min".
std::string sayTime(double seconds);
std::string sayAdhesive(Adhesive adhesive);

} // namespace hinge
