// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/checks/check.h"

namespace hinge {

/// A finding about panels, the main one first, that holds at every opening: their keys and owners,
/// each once, and its place in the middle of the first panel as the card is shown. Amount and case
/// are left to the check.
Finding findingOn(const CheckInput& in, std::string code, Severity severity,
                  const std::vector<PanelIndex>& panels);

/// Adds the panel and its owner to what the finding is about, each once.
void addPanel(const CheckInput& in, PanelIndex panel, Finding& finding);

} // namespace hinge
