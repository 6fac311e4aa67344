// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/units/length.h"
#include <span>
#include <string_view>

namespace hinge {

/// Which sides are scored: all lines on the face, or valleys on the face and mountains on the back.
enum class ScoreSides { Face, Both };
/// How much of a line: from edge to edge wherever no panel would be creased by it, or only where it
/// folds.
enum class ScoreLength { Whole, Folding };
enum class ScoreOrder { ScoreFirst, CutFirst };
/// The edge from which places are read first, as the face is looked at.
enum class FirstEdge { Left, Right };

/// The maker's tools and habits at the cutting table: described once, for all cards.
struct Bench {
  double trimmer_mm = 310; ///< longest cut of the trimmer; 0: there is none
  double board_mm = 300;   ///< length of the scoring board; 0: scored with a ruler
  double grid_mm = 0;      ///< between grooves of the board; 0: anywhere
  double step_mm = 0;      ///< the finest that the maker sets; 0: half a millimetre or 1/16 in
  double thickest_mm = 1;  ///< paper that the trimmer cuts
  double offcut_mm = 60;   ///< offcuts with both sides at least this long are kept
  ScoreSides sides = ScoreSides::Face;
  ScoreLength length = ScoreLength::Folding;
  ScoreOrder order = ScoreOrder::ScoreFirst;
  FirstEdge first = FirstEdge::Left;
  bool operator==(const Bench&) const = default;
};

/// The step in which sizes are set and read in a unit.
double stepOf_mm(const Bench& bench, LengthUnit unit);

/// Numbers within what there is; the place of an error is the key.
Result<void> validate(const Bench& bench);

/// The words of the file and the command line: "trimmer", "board", "grid", "step", "thickest",
/// "offcut" with lengths in mm; "sides" (face, both), "length" (whole, folding), "order"
/// (score-first, cut-first), "first" (left, right).
struct BenchRow {
  std::string_view key;
  double Bench::*length = nullptr; ///< null for schools
  double least_mm = 0, most_mm = 0;
};
std::span<const BenchRow> benchRows();
/// What a school is set to, and sets it; false when it has no such choice.
std::string_view schoolOf(const Bench& bench, std::string_view key);
bool setSchool(Bench& bench, std::string_view key, std::string_view choice);
std::span<const std::string_view> choicesOf(std::string_view key); ///< empty for lengths

} // namespace hinge
