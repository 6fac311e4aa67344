// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/checks/check.h"

namespace hinge {

/// A finding about panels, the main one first, that holds at every opening: their keys and owners,
/// each once, and its place in the middle of the first panel as the card is shown. Amount and case
/// are left to the check.
Finding findingOn(const CheckInput& in, std::string code, Severity severity,
                  const std::vector<PanelIndex>& panels);

} // namespace hinge
