// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/place_rule.h"
#include "core/pieces/sheet_scanner.h"

namespace hinge {

// Rules of placement in a sentence (sheet_words.h), after the face, parted by "and":
//
//   OWN on LINE               a line of the panel lies on a line of the paper below
//   OWN L from LINE           so far inside of it, and the panel goes on from there
//   OWN up to [L from] LINE   the panel ends there
//   centred on LINE
//   spaced K of N on LINE     with equal gaps; counted from the left or lower end
//   level with P              as far along the folds between as the joint at P
//   mirrored from P           as the joint at P, on the other side of the fold between
//
// OWN is left, right, bottom, top [edge] of the panel that is joined, "edge P" (the edge or score
// of it nearest to a point) or "point", where the joint is. LINE is left, right, bottom, top [edge]
// of the panel below, as its sheet is drawn flat, or "fold [KEY]".

/// The next rule; nothing when no word of one comes next. `corner` is the point of the flat frame
/// from which places are read.
Result<std::optional<PlaceRule>> ruleIn(SheetScanner& in, const Vec2& corner);

/// The same rule in words, exact.
std::string inWords(const PlaceRule& rule, const Vec2& corner, LengthUnit unit);

/// A line below in words: "fold gutter", "left edge".
std::string inWords(const placed::LineBelow& line);

} // namespace hinge
