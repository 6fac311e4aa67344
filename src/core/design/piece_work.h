// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/geom/polygon.h"
#include <string>
#include <string_view>
#include <vector>

namespace hinge {

/// A line worked into a free piece, in its flat frame (mm, face up).
struct WorkLine {
  enum class Kind { Mountain, Valley, Cut };
  Kind kind = Kind::Valley;
  Vec2 from, to;
  std::string extras; ///< members of the file this version does not know, as JSON text
  bool operator==(const WorkLine&) const = default;
};

/// How a panel of a free piece is joined to something that was there before. `at` is a point of the
/// piece: the panel that holds it is the one joined. `on` is the key of a face ("card/page-a",
/// "s2/panel-1-back"), `to` a point on that face: x along the line on which the face stands, y away
/// from it.
struct WorkJoint {
  enum class Kind {
    Glue, ///< one on the other; `turn_deg` from the face's x axis to the piece's, counter-clockwise
    Slot, ///< half slots pushed into one another: both panels turn about their common line
    Pivot,   ///< a pin: the panels lie on one another and turn about the point
    Slide,   ///< the panel runs along a line of the face without turning
    Elastic, ///< a band between the two points: no guide, only a force
    Tie,     ///< a strip of film or paper between the two points: slack until it is taut
  };
  Kind kind = Kind::Glue;
  Vec2 at = Vec2::Zero();
  std::string on;
  Vec2 to = Vec2::Zero();
  double turn_deg = 0;
  /// Glue, pivot, slide: the side of the piece that meets the face.
  bool byFace = false;
  /// Slot: direction of the common line, seen on the piece and (turn_deg) on the face. The piece is
  /// slit from `at` against it, the face from `to` along it; lengths of 0 slit as far as both need
  /// to meet, others are taken as they are.
  double way_deg = 90, slit_mm = 0, faceSlit_mm = 0;
  /// Slot: the last stretch of the piece's slit before its edge is a bare cut: its lips close
  /// behind the other paper and hold it.
  double catch_mm = 0;
  /// Slide: way along turn_deg that the opening pulls the piece, from one opening to the other; no
  /// pull when they are equal.
  double pull_mm = 0, pullFrom_deg = 0, pullTo_deg = 0;
  /// Slide: how far it can run before it meets its stops.
  double least_mm = 0, most_mm = 0;
  /// Elastic and tie: length without force.
  double length_mm = 0;
  std::string extras; ///< members of the file this version does not know, as JSON text
  bool operator==(const WorkJoint&) const = default;
};

std::string_view workKey(WorkLine::Kind kind); ///< "mountain", "valley", "cut"
std::string_view
workKey(WorkJoint::Kind kind); ///< "glue", "slot", "pivot", "slide", "elastic", "tie"

/// A free piece as its maker thinks of it: an outline with scores, cuts and openings, and what it
/// is joined to.
struct PieceWork {
  Polygon outline;
  std::vector<WorkLine> lines;
  std::vector<Polygon> windows;
  std::vector<WorkJoint> joints;
  std::string extras; ///< members of the file this version does not know, as JSON text
  bool operator==(const PieceWork&) const = default;
};

/// Sizes within what paper comes in, an outline with an area, joints with what they need. `place`
/// names the structure.
Result<void> validate(const PieceWork& work, std::string_view place);

// --- The piece as a strip: a rectangle with scores read from one edge
// ---------------------------------------------------

/// A rectangle of `width_mm` by `height_mm` with its lower left corner in the origin.
PieceWork plainStrip(double width_mm, double height_mm);

/// Lines that run from the lower edge of the piece to the upper one, by their place on the lower
/// edge.
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
/// All scores as a list of places from the left end; there must be as many as the piece has, or the
/// new ones take turns as mountain and valley after the last one that is kept.
Result<PieceWork> withScores(const PieceWork& work, const std::vector<double>& low_mm);
/// Left and right exchanged, joints along with it: the other one of a pair, before it is put in its
/// place.
PieceWork mirrored(const PieceWork& work);

} // namespace hinge
