// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/units/length.h"
#include <map>
#include <span>
#include <string>
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
  double blade_mm = 0.25;        ///< of the cutting machine's knife: from its axis to its tip
  double overcut_mm = 0.5;       ///< past the start of closed cuts
  double scaleX = 1, scaleY = 1; ///< what the machine makes of a length of 1
  double offsetX_mm = 0, offsetY_mm = 0; ///< and where it comes out with what should be at 0
  std::map<std::string, double> speeds_cms = {}; ///< of the machine, by the key of the paper
  bool operator==(const Bench&) const = default;
};

/// The step in which sizes are set and read in a unit.
double stepOf_mm(const Bench& bench, LengthUnit unit);

/// Numbers within what there is; the place of an error is the key.
Result<void> validate(const Bench& bench);

/// The words of the file and the command line: "trimmer", "board", "grid", "step", "thickest",
/// "offcut", "blade", "overcut", "offset-x", "offset-y" with lengths in mm; "scale-x", "scale-y";
/// "sides" (face, both), "length" (whole, folding), "order" (score-first, cut-first), "first"
/// (left, right).
struct BenchRow {
  std::string_view key;
  double Bench::*number = nullptr; ///< in mm unless it is plain; null for schools
  double least = 0, most = 0;
  bool plain = false; ///< a number without a unit
};
std::span<const BenchRow> benchRows();
/// Begins the word for the machine's speed on a paper, "speed:card-220" (cm/s; 0 forgets it).
constexpr std::string_view kSpeedWord = "speed:";
constexpr double kSlowest_cms = 1, kFastest_cms = 100;
/// What a school is set to, and sets it; false when it has no such choice.
std::string_view schoolOf(const Bench& bench, std::string_view key);
bool setSchool(Bench& bench, std::string_view key, std::string_view choice);
std::span<const std::string_view> choicesOf(std::string_view key); ///< empty for lengths

} // namespace hinge
