// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/dressing.h"

namespace hinge {

/// Letters in the program's typeface as paper, about the middle of the line: capitals are as high
/// as asked. Apart, or as one piece on a strip below them, with all dots and accents joined to it.
/// Empty when nothing of the text can be drawn. Needs a QGuiApplication.
std::vector<Region> lettering(const std::string& text, double capital_mm, bool onStrip);

/// A topper of lettering with its letters drawn anew from its text: as high as it is, which makes
/// it as wide as they come. Its detail says how: 0.5 and more, on a strip. Unchanged when it is
/// none, or its text says nothing.
Topper lettered(Topper topper);

} // namespace hinge
