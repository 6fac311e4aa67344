// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/dressing.h"
#include "core/design/splice.h"
#include "core/paper/paper.h"
#include "core/units/length.h"

namespace hinge {

// Papers, rules of dressing and splices as lines of the card on one page, and as the command line
// takes them. Lengths are in the card's unit and come back exactly.

/// "night-blue: thick 0.2, weight 160, face #1f2a44, back #1f2a44, called Night blue".
std::string inWords(const Paper& paper, LengthUnit unit);
Result<Paper> paperFromWords(std::string_view text, LengthUnit unit);

/// "twins s3/wall-a over: canal-blue border 3, deck-planks border 3,0,3,3 round turned 30".
std::string inWords(const DressRule& rule, LengthUnit unit);
Result<DressRule> ruleFromWords(std::string_view text, LengthUnit unit);

/// "t1 lantern on s3/wall-a: paper lamp-gold, at 10 12, size 18 x 28, detail 0.5, turned 20,
/// mirrored, pads 2, mat tar border 2, text Open all night, outline 0/0 10/0 10/5 hole 2/1 ...".
std::string inWords(const Topper& topper, LengthUnit unit);
Result<Topper> topperFromWords(std::string_view text, LengthUnit unit);
/// What is said behind the colon, on top of what the topper is already.
Result<Topper> toppedUp(Topper topper, const std::vector<std::string>& parts, LengthUnit unit);

/// "card/page-a: at 148, overlap 12, level, on-face".
std::string inWords(const Splice& splice, LengthUnit unit);
Result<Splice> spliceFromWords(std::string_view text, LengthUnit unit);

/// "3" or "3,0,3,3": foot, right, top, left; of a topper's mat "3:0:3:3", as commas part what is
/// said of it.
Result<std::vector<double>> bordersFromText(std::string_view text, LengthUnit unit);

} // namespace hinge
