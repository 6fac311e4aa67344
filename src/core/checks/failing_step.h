// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/checks/finding.h"
#include "core/making/work_plan.h"

namespace hinge {

/// The step at which what spoils the card shows: after it all the paper that the finding is about
/// is in its place. Nothing for advice, and for findings about nothing that is joined.
std::optional<std::size_t> failingStep(const WorkPlan& plan, const Assembly& assembly,
                                       const Finding& finding);

} // namespace hinge
