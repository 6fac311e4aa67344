// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/edits.h"
#include "core/geom/vectors.h"
#include "core/structures/names.h"
#include <optional>
#include <string>
#include <vector>

namespace hinge {

enum class Severity { Spoils, Advice };
enum class AmountUnit { Millimetre, Degree, Count };

/// A verdict of a check with its evidence: what, where, how much, at which openings.
struct Finding {
  std::string code; ///< "shut-flat", "outside-cover", "panels-hit", ...
  Severity severity = Severity::Spoils;
  std::vector<std::string> elements; ///< keys of panels or structures, the main one first
  std::vector<StructureId> owners;   ///< structures that can be changed to mend it
  double from_rad = 0, to_rad = 0;   ///< openings at which it happens
  double amount = 0;
  AmountUnit unit = AmountUnit::Millimetre;
  Text detail; ///< the case within the check: the edge, the way of failing, what is in the way
  Vec3 place = Vec3::Zero();    ///< world point at `show_rad`
  double show_rad = 0;          ///< opening at which it shows best
  std::vector<Mend> proposed;   ///< changes that the check itself knows; not yet tried
  std::optional<Mend> mend;     ///< tried on the whole design
  std::vector<Mend> otherMends; ///< each of which would do instead; tried as well, nearest first
  /// Number in the list of a finding that this one may be a consequence of: what is out of step
  /// leans over, and what stands on it leans with it.
  std::optional<std::size_t> goesWith;
  bool mendSought = false; ///< the search has ended: without a mend there is none
  std::string_view check;  ///< key of the check that found it; set by CheckInput
  std::vector<Text> names; ///< what each of the elements is called; set by CheckInput
};

/// The same code at the same structures; where one may have several of them, at the same panels.
bool sameTrouble(const Finding& a, const Finding& b);

std::string_view severityKey(Severity severity); ///< "spoils", "advice"
std::string_view unitKey(AmountUnit unit);       ///< "mm", "deg", "count"

} // namespace hinge
