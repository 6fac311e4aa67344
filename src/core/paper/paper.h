// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/paper/pattern.h"
#include <array>
#include <optional>

namespace hinge {

enum class Surface { Matt, Gloss, Foil, Film };
enum class Grain { Unknown, Long, Short }; ///< along which side of the sheet the fibres run

/// Sheets of one size that lie in the drawer; without a count there are always enough.
struct SheetsAtHand {
  double width_mm = 210, height_mm = 297;
  std::optional<int> count = {};
  bool operator==(const SheetsAtHand&) const = default;
};

/// A picture from a file that is printed on the face, over and over, in its real size.
struct Picture {
  std::string bytes; ///< of the file, PNG or JPEG
  double width_mm = 50;
  bool operator==(const Picture&) const = default;
};
constexpr std::size_t kLargestPicture = 8'000'000; ///< bytes

/// A paper or board, as it lies in the drawer. Thickness drives clearances, weight the stand,
/// colours and print the looks.
struct Paper {
  std::string key = "card-220";
  std::string label = "Card 220 gsm"; ///< the maker's name for it
  double thickness_mm = 0.27;
  double weight_gsm = 220;
  std::array<Colour, 2> colours = {kPlain, kPlain}; ///< face and back
  Surface surface = Surface::Matt;
  std::optional<Print> print = {};     ///< on the face
  std::optional<Picture> picture = {}; ///< in place of a print of our own
  PatternWay way = PatternWay::None;
  Grain grain = Grain::Unknown;
  std::vector<SheetsAtHand> sheets = {}; ///< none: cut from the sheet of the settings
  std::optional<double> price = {};      ///< of a sheet, in the maker's own money
  std::string extras = {};               ///< members of the file this version does not know
  bool operator==(const Paper&) const = default;

  /// Warm white: card that is not dressed yet.
  static constexpr Colour kPlain{0xff, 0xf4, 0xe0};
  /// Both sides look alike: a piece and its mirror image can be cut from it the same way round.
  bool patterned() const { return print || picture; }
  bool twoSided() const { return !patterned() && colours[0] == colours[1]; }
};

/// Papers to choose from; the second one is what a new card starts with.
std::span<const Paper> knownPapers();
const Paper* findPaper(std::span<const Paper> papers, std::string_view key);

/// "stock.KEY" of words/ for those that everybody has, unless its maker calls it otherwise.
Text nameOf(const Paper& paper);

/// Keys are words of letters, digits and dashes; numbers and prints within their limits.
Result<void> validate(const Paper& paper);

constexpr double kLargestThickness_mm = 10, kLargestWeight_gsm = 10000;

} // namespace hinge
