// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/parameter.h"

namespace hinge {

/// Side by side on the lower edge of a free piece; more are refused.
constexpr std::size_t kMostPanels = 100;

/// The row that every free piece has: where it is.
ParameterTable pieceRows();
/// With the widths of its first panels, from the left end: "panel-1", "panel-2", ...
ParameterTable pieceRows(std::size_t panels);
/// The key of a panel's width; 0 is the leftmost.
std::string_view panelKey(std::size_t panel);

} // namespace hinge
