// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/piece_work.h"
#include "core/units/length.h"
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace hinge {

// What a maker says to a sheet, in words: "score 40 valley, 90 mountain". One grammar serves the
// command line, the card on one page and what is told of a change; it is a file format and stays as
// it is in every language. Places are read from the left end and the lower edge of the sheet (its
// bounding box); a number without a unit is in the given one.
//
//   size W x H                         the sheet anew, as a rectangle
//   outline P P P ...                  the sheet anew, corner by corner; P is x,y
//   score L KIND, L > L KIND, ...      from the lower edge to the upper one; slanted: low > high
//   score L KIND from L to L           only between these heights
//   score across L KIND, ...           from the left end to the right one
//   score P to P KIND                  anywhere
//   cut P to P to P ...
//   opening P to P                     a rectangle
//   opening P P P ...                  any shape
//   opening disc P across L
//   opening ring P from L to L towards A wide A   a piece of a ring: radii, angles from the right
//   reverse L to L between L and L     a section between two cuts that folds the other way
//   tab left|right|bottom|top L KIND   paper added beyond an edge, scored there; "tab at P L KIND
//                                      [bevel A]": beyond the edge on which P lies
//   corners round L                    all outer corners
//   corner at P                        the sheet as it is, with its lower left corner there in its
//   own
//                                      flat frame (where drawings and FOLD files have their zero)
//   turn S, erase S                    a line: S is its place L on the lower edge, or a point P
//   turn over                          the sheet, left and right, joined by its other side: it lies
//                                      where it lay, its scores fold to the other side of the card
//   move S to L [carrying]             a score to another place; what lies beyond it goes along
//   fold S MOVES                       how a score moves
//   JOINT P on FACE [at P] [RULE and RULE ...] [by face] [NUMBER ...]
//                                      where its point lies on the face, by numbers or by rules
//                                      (rule_words.h);
//                                      glue, slot, pivot, slide, band or film, with the numbers
//                                      that it has: turned A, way A, deep L, into L, catch L, least
//                                      L, most L, pulled L, after A, until A (by the opening), spun
//                                      A to A, pushed L to L (by hand, from where it rests), long
//                                      L; of glue: only P P P ..., the part of the panel that takes
//                                      it
//   loosen P                           the joints at that panel
//   glued P only P P P ... | all       the part of that panel that takes the glue
//   ground P                           of a base: the panel that lies on the table
//
// What a hand changes of what is there (pull, kink, smooth, round, snip, lean, repeat, alike,
// close) stands in hand_words.h.
//
// KIND is valley or mountain (v, m). MOVES is what the maker decides of a fold, as the angle
// between the leaves on its inner side: "free" (the joints decide), "held at A", "lifted from A to
// A" (by hand, from where it rests), "opens [from A] to A [between A and A]" (it follows the
// opening of the card, between two openings of that). After it "folded A": how far the score of a
// piece was folded before it was glued, where the search for its pose begins.

/// A sheet under work.
struct SheetInWork {
  PieceWork work;
  bool base = false;          ///< of the card's base: scores from edge to edge follow its opening
  std::optional<Vec2> ground; ///< a point of the panel that lies on the table
};

/// The sheet as one sentence leaves it, or several parted by semicolons. Fails with what could not
/// be understood, or what paper cannot be; `sheet` is left alone then.
Result<SheetInWork> workedBy(const SheetInWork& sheet, std::string_view sentence, LengthUnit unit);

/// The sentences that make this sheet from nothing, exact to 1e-9 mm.
std::vector<std::string> sentencesOf(const SheetInWork& sheet, LengthUnit unit);

/// The sentence that makes a joint of this sheet.
std::string jointSentence(const SheetInWork& sheet, const PieceJoint& joint, LengthUnit unit);

/// A list of scores from edge to edge, "10, 36 1/4in v, 66 m": places from the left end, with their
/// marks where these are said; "none" or nothing: no score. And the list of those that a piece has,
/// lengths as they are shown.
Result<std::vector<ScorePlace>> scorePlaces(std::string_view list, LengthUnit unit);
std::string scoreList(const PieceWork& work, LengthUnit unit);

/// The shortest way to write a number that has no length so that it is read again as it was.
std::string exactNumber(double value);

/// The word for a number of a joint, by its key in files: "turn_deg" is "turned".
std::string_view jointWord(std::string_view key);

/// The shortest way to write a length so that it is read again as it was, to 1e-9 mm.
std::string exactLength(double length_mm, LengthUnit unit);

} // namespace hinge
