// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/joint.h"
#include "core/base/result.h"
#include "core/units/length.h"

namespace hinge {

struct Assembly;
struct AssemblyOrder;
struct DressMoment;
struct Finding;
struct Mend;

// The one place where what the core returns (codes, numbers with units, places) becomes words in
// the user's language. Everything is UTF-8. Each pattern is a source text of Qt's translation
// system (context "words"); without a translation the user reads English.

/// The text in the user's language, lengths in the unit. A key without a sentence is said as it
/// is.
std::string say(const Text& text, LengthUnit unit = LengthUnit::Millimetre);
/// A length as it is told: in inches on the marks of a ruler ("9 13/16 in less a hair"); what is
/// thinner than a sixteenth as a thickness.
std::string sayLength(double length_mm, LengthUnit unit);
/// Millimetres, or thousandths of an inch in a card in inches.
std::string sayThickness(double thickness_mm, LengthUnit unit);
/// "place: cause (line 12)", without the parts that are not known.
std::string say(const Error& error, LengthUnit unit = LengthUnit::Millimetre);
/// The same, beginning with a capital letter, to stand alone.
std::string saySentence(const Text& text, LengthUnit unit = LengthUnit::Millimetre);

/// A finding, and the changes that mend it, as sentences with lengths in the design's unit.
std::string describe(const Finding& finding, const Design& design);
std::string describe(const Mend& mend, const Design& design);

/// "glue panel 1 of Strap to page a": what is done to the joints of one group.
std::string describe(const std::vector<JointIndex>& group, const Design& design,
                     const Assembly& assembly);
/// A sentence a step, in their order, with what a step must come before; then one for each joint
/// that cannot be reached.
std::vector<std::string> describe(const AssemblyOrder& order, const Design& design,
                                  const Assembly& assembly);

/// A line of the work as it is read from top to bottom.
struct OrderLine {
  std::string number; ///< "3." of a step; "x" of what is out of reach; "-" of dressing
  std::string text;
};
/// The steps with what is stuck onto faces between them.
std::vector<OrderLine> orderLines(const AssemblyOrder& order,
                                  const std::vector<DressMoment>& moments, const Design& design,
                                  const Assembly& assembly);

} // namespace hinge
