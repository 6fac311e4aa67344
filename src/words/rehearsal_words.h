// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/folded_wrong.h"
#include "core/making/rehearsal.h"
#include "core/model/planned.h"
#include <string>
#include <vector>

namespace hinge {

/// What a rehearsal asks, and the answers in the order of their numbers.
struct RehearsalWords {
  std::string question;
  std::vector<std::string> answers;
};
RehearsalWords inWords(const RehearsalTask& task, const PlannedWork& work);

/// What a wrong answer leads to.
std::string sayWrongFold(const FoldedWrong& wrong, const PlannedWork& work);
std::string sayMisstep(const RehearsalTask& task, const Misstep& misstep, const PlannedWork& work);

} // namespace hinge
