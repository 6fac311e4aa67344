// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/pieces/drawn_shape.h"
#include "core/pieces/outline_edits.h"
#include "core/pieces/sheet_words.h"
#include "core/pieces/snapping.h"

namespace hinge {

// What a hand does on a sheet with a pointer, as the sentence (sheet_words.h) that says the same:
// hand, words and files are one thing. mm, in the flat frame of the piece.

/// What lies under the pointer and can be held.
struct Grip {
  enum class What { Nothing, Corner, Rim, Line, LineFrom, LineTo, Opening, OpeningCorner, Panel };
  What what = What::Nothing;
  std::size_t index = 0;  ///< of the corner, edge, line or opening
  std::size_t corner = 0; ///< of an opening
  bool operator==(const Grip&) const = default;
};
/// Ends of lines before corners, lines before edges, openings before panels.
Grip gripAt(const PieceWork& work, const Vec2& at, double reach_mm);

enum class SheetTool { Hold, Score, Cut, Opening, Reverse, Tab, Corner, Outline, Trim };

/// One movement of a hand, from where it was pressed to where the pointer is; both are the same
/// while it only points.
struct Stroke {
  SheetTool tool = SheetTool::Hold;
  Vec2 from = Vec2::Zero(), to = Vec2::Zero();
  bool pressed = false;
  Grip grip; ///< what was held when it was pressed
  WorkLine::Kind fold = WorkLine::Kind::Valley;
  DrawnShape opening = DrawnShape::Rectangle; ///< what openings are drawn as
  DrawnShape outline = DrawnShape::Corners;   ///< and what the sheet itself is
  std::string shape = "arch";                 ///< key of the shape when it is a named one
  /// A point of what the shape is centred on; nothing: where it is drawn.
  std::optional<Vec2> centredOn;
  CornerCut corner = CornerCut::Round;
  double bevel_deg = 30;   ///< of tabs
  bool fromFarEnd = false; ///< places are read from the right end, or the upper edge
  bool carry = false;      ///< what lies beyond a moved score goes along
  DrawnShape drawnAs() const { return tool == SheetTool::Outline ? outline : opening; }
  /// The outline of an opening, or of the sheet itself, is drawn corner by corner.
  bool cornerByCorner() const {
    return (tool == SheetTool::Outline || tool == SheetTool::Opening) &&
           drawnAs() == DrawnShape::Corners;
  }
  std::vector<Vec2> corners; ///< of an outline, so far
  std::vector<double> typed; ///< in place of the measures, in their order
  Snapping snapping;
};

/// A distance that stands beside the pointer.
struct StrokeMeasure {
  Vec2 from, to;
  double value = 0;
  bool angle = false;
  bool typed = true; ///< typing replaces it; else it only tells
};

struct Drawn {
  std::string sentence; ///< nothing is meant when it is empty
  std::vector<StrokeMeasure> measures;
  std::vector<Edge> ghost; ///< what would come to be, to be drawn over the sheet
  Snapped at;
};

/// What a movement means. Lengths in the sentence are exact, in `unit`.
Drawn drawnBy(const SheetInWork& sheet, const Stroke& stroke, LengthUnit unit);

/// What was typed beside the pointer, "3 1/2" or "30 x 20": lengths and angles in the order of the
/// measures that typing replaces. Fails with what could not be read, or is too much.
Result<std::vector<double>> typedMeasures(const std::vector<StrokeMeasure>& measures,
                                          std::string_view text, LengthUnit unit);

/// A point of the sheet as a sentence names it, "10,2 1/2": from its corner, exact.
std::string placeInWords(const PieceWork& work, const Vec2& at, LengthUnit unit);

/// A point by which a sentence can name a line so that no other is meant.
Vec2 nameOfLine(const PieceWork& work, std::size_t line);

} // namespace hinge
