// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/piece_joint.h"
#include <functional>
#include <string>
#include <string_view>
#include <vector>

namespace hinge {

/// What a maker decides of a fold, where the joints do not: the angle between its leaves on the
/// inner side (0 folded over, 180 flat) while the card goes from one opening to another. The same
/// angle twice: the fold is held.
struct FoldMoves {
  double shut_deg = 0, open_deg = 180;
  double from_deg = 0, to_deg = 180;
  /// Loose on purpose: it rests at the first angle and is lifted by hand up to the second.
  bool byHand = false;
  double step_deg = 0; ///< lifted by so much at a time; 0: to any angle
  bool held() const { return byHand || shut_deg == open_deg; } ///< whatever the card does
  bool operator==(const FoldMoves&) const = default;
};

/// A line worked into a piece, in its flat frame (mm, face up).
struct WorkLine {
  enum class Kind { Mountain, Valley, Cut };
  Kind kind = Kind::Valley;
  Vec2 from, to;
  std::optional<FoldMoves> moves = {}; ///< of a base's score: else the joints decide
  /// How far its maker folded it before the piece was glued, as the angle between the leaves on its
  /// inner side: where the search for the pose of a piece begins.
  std::optional<double> folded_deg = {};
  std::string extras = {}; ///< members of the file this version does not know, as JSON text
  bool operator==(const WorkLine&) const = default;
};

std::string_view workKey(WorkLine::Kind kind); ///< "mountain", "valley", "cut"

/// A free piece as its maker thinks of it: an outline with scores, cuts and openings, and what it
/// is joined to.
struct PieceWork {
  Polygon outline;
  std::vector<WorkLine> lines;
  std::vector<Polygon> windows;
  std::vector<PieceJoint> joints;
  std::string extras; ///< members of the file this version does not know, as JSON text
  bool operator==(const PieceWork&) const = default;
};

/// Calls `change` for every point of the sheet: outline, lines, openings, joints, glued areas.
void eachPoint(PieceWork& work, const std::function<void(Vec2&)>& change);

/// Sizes within what paper comes in, an outline with an area, joints with what they need. `place`
/// names the structure.
Result<void> validate(const PieceWork& work, std::string_view place);
/// The work itself when it is valid.
Result<PieceWork> checked(PieceWork work);

// --- The piece as a strip: a rectangle with scores read from one edge
// ---------------------------------------------------

/// A rectangle of `width_mm` by `height_mm` with its lower left corner in the origin.
PieceWork plainStrip(double width_mm, double height_mm);

/// Lines that run from the lower edge of the piece to the upper one, by their place on the lower
/// edge, without those that meet another one or an end there.
struct ScoreMark {
  std::size_t line;       ///< index in PieceWork::lines
  double low_mm, high_mm; ///< on the lower and on the upper edge, from the left end
};
std::vector<ScoreMark> scoreMarks(const PieceWork& work);

/// The widths between the marks, read along the lower edge, ends included.
std::vector<double> panelWidths_mm(const PieceWork& work);

/// A point inside each of these panels, half-way up the score beside it.
std::vector<Vec2> panelPoints(const PieceWork& work);

/// A score at a new place, slanted ones as they are. What lies to its right, joints and windows
/// included, moves along when `carry` is set: the panel on its left gets wider, no other changes.
Result<PieceWork> withScoreMoved(const PieceWork& work, std::size_t line, double low_mm,
                                 bool carry);
/// The width of a panel (0 the leftmost): its right score, or the right end, moves and takes along
/// what lies beyond it.
Result<PieceWork> withPanelWidth(const PieceWork& work, std::size_t panel, double width_mm);
Result<PieceWork> withScoreAdded(const PieceWork& work, double at_mm, WorkLine::Kind kind);
Result<PieceWork> withLineRemoved(const PieceWork& work, std::size_t line);
/// Mountain becomes valley and the other way round.
Result<PieceWork> withLineTurned(const PieceWork& work, std::size_t line);
/// A place from the left end, and how the score there folds where that is said.
struct ScorePlace {
  double low_mm = 0;
  std::optional<WorkLine::Kind> kind;
  ScorePlace(double low, std::optional<WorkLine::Kind> folds = {}) : low_mm(low), kind(folds) {}
};
/// All scores from edge to edge anew, as places from the left end. Without a word they keep the
/// marks that they have in this order; further ones take turns as mountain and valley.
Result<PieceWork> withScores(const PieceWork& work, const std::vector<ScorePlace>& places);
/// Left and right exchanged, joints along with it: the other one of a pair, before it is put in its
/// place.
PieceWork mirrored(const PieceWork& work);
/// Turned over, left and right, and joined by its other side: it lies where it lay, and its scores,
/// marked as they were, fold to the other side of the card.
PieceWork turnedOver(const PieceWork& work);

} // namespace hinge
