// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/piece_work.h"
#include "core/geom/region.h"
#include "core/units/length.h"
#include <map>
#include <string>
#include <string_view>
#include <vector>

namespace hinge {

// Drawings that come from outside: lines of paper, whatever file they stood in. mm, y up.

/// How a line looks in the file: what tells a fold from a cut. Any of it may be empty.
struct LineLook {
  std::string layer, colour, dash; ///< "valley", "#855c00", "0.4 1.4"
  auto operator<=>(const LineLook&) const = default;
};

/// What a line of a drawing is to be: nothing, or one of the sheet's.
enum class LineUse { Nothing, Cut, Mountain, Valley };

struct DrawnLine {
  std::vector<Vec2> points;
  bool closed = false;
  LineLook look;
  std::optional<LineUse> use = {}; ///< when the format says it itself
  bool inside = false;             ///< a cut that is no part of an outline, as the format says
  std::optional<double> folded_deg = {}; ///< as in WorkLine
};

struct Drawing {
  std::vector<DrawnLine> lines;
  /// What could not be used, each once, with how often: "svg.unused/text".
  std::map<std::string, int> unused;
};

/// Curves are drawn as chords no farther than this from them.
inline constexpr double kChordOff_mm = 0.05;
/// Bounds of what is read: more is refused, not tried.
inline constexpr std::size_t kMostDrawnPoints = 200'000, kMostDrawnDepth = 100;
inline constexpr double kFarthestDrawn_mm = 5000;

/// Reads a drawing by the ending of its name: .svg, .dxf, .fold. Fails with the line and the cause.
Result<Drawing> drawingFromFile(const std::string& path);
Result<Drawing> drawingFromSvg(std::string_view text);
Result<Drawing> drawingFromDxf(std::string_view text);
Result<Drawing> drawingFromFold(std::string_view text);

/// What a look most likely means: by the words in its layer ("valley", "mountain", "fold", "score",
/// "cut"; marks, labels and glue are nothing), else dashes are valleys and the rest is cut.
LineUse likelyUse(const LineLook& look);
using LineUses = std::map<LineLook, LineUse>;
/// Every look of a drawing with what it likely means.
LineUses likelyUses(const Drawing& drawing);

/// The pieces of a drawing: every closed cut outline that lies in no other, with what lies in it as
/// openings, cuts and scores; the largest first. Lines that meet within `kJoin_mm` are one. Fails
/// when no outline is closed.
inline constexpr double kJoin_mm = 0.1;
Result<std::vector<PieceWork>> piecesOf(const Drawing& drawing, const LineUses& uses);
/// The same pieces as plain areas about their common middle, without their folds; for shapes that
/// are put on.
Result<std::vector<Region>> areasOf(const Drawing& drawing, const LineUses& uses);
/// The closed cut outlines alone, for openings; the largest first.
Result<std::vector<Polygon>> outlinesOf(const Drawing& drawing, const LineUses& uses);

/// Scores from a list, a line each: position, kind and the edge it is read from ("12.5, valley,
/// left"; the last two may be missing), with or without units; parted by commas, semicolons or
/// tabs. A first line without numbers is a heading. Places from the right edge need its width.
Result<std::vector<ScorePlace>> scoresFromCsv(std::string_view text, LengthUnit unit,
                                              double width_mm);

} // namespace hinge
