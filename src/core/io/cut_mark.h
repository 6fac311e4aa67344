// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/sending/talk.h"
#include <string>

namespace hinge {

/// The mark of a job that is being cut, kept in the maker's folder so that it can go on after any
/// of the two programs has ended. One at a time: there is one sheet in the machine.
std::string cutMarkPath();
Result<void> keepCutMark(const CutterMark& mark);
/// Nothing when no job is under way.
Result<std::optional<CutterMark>> keptCutMark();
void forgetCutMark();

} // namespace hinge
