// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/base/result.h"
#include "core/design/piece_work.h"

namespace hinge {

/// A point of a face in the flat frame of its panel's piece, and back.
Vec2 flatPoint(const SeatSide& side, const Vec2& onFace);
Vec2 facePoint(const SeatSide& side, const Vec2& flat);

/// A straight line of paper, an edge or fold with all that lies on the same line: `along` runs from
/// its lower (or left) end, `in` is square to it, to the side of its panel; unit lengths.
struct PaperLine {
  Vec2 at = Vec2::Zero(), along = Vec2::UnitX(), in = Vec2::UnitY();
  double length_mm = 0;
};
/// The lines of the panel below that rules can name, folds first, in the frame of the face.
std::vector<std::pair<placed::LineBelow, PaperLine>> linesBelow(const Assembly& assembly,
                                                                const SeatSide& face);
/// The edges of a panel by the names that rules give them, in the piece's flat frame.
std::vector<std::pair<placed::OwnLine, PaperLine>> ownLines(const Polygon& panel);

/// A joint of a piece that is being built: what its rules are worked out from.
struct JointToPlace {
  const Assembly& assembly;           ///< as far as it is built: the panel below is there
  const PieceWork& work;              ///< of the piece
  const Polygon& panel;               ///< that is joined: its rim, in the piece's flat frame
  Text name;                          ///< of that panel
  std::span<const PieceJoint> placed; ///< the joints before this one, as they lie
};

/// The joint with the place and turn that its rules come to; what they leave open (the way along a
/// single line, the turn) stays as its numbers say. Errors: "rule.both" (two that cannot both
/// hold, with both), "rule.no-side", "rule.no-fold", "rule.which-fold" (a line below that is not
/// there), "rule.own-line" (of what has no panel to lie by), "rule.no-room", "rule.no-joint",
/// "rule.later" (another joint that is not there yet), "rule.level", "rule.mirrored".
Result<PieceJoint> placedByRules(const PieceJoint& joint, const JointToPlace& on);

/// What the distance of a rule comes to with the joint where its numbers have it. Errors as above.
Result<double> distanceNow(const placed::Distance& rule, const PieceJoint& joint,
                           const JointToPlace& on);

/// The line of another face that takes the place of one when a piece is mirrored onto it: along the
/// face left and right are exchanged, away from its line nothing is.
placed::LineBelow mirroredLine(const Assembly& assembly, const placed::LineBelow& line,
                               const SeatSide& from, const SeatSide& onto);

/// What a rule is called: "left edge on the fold".
Text described(const PlaceRule& rule);

} // namespace hinge
