// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/design.h"
#include "core/production/bench.h"
#include "core/production/flat_piece.h"

namespace hinge {

/// A stretch of a line, from the edge at which its position is read along it: the lower edge for
/// upright lines, the left one for level ones.
struct Stretch {
  double from_mm = 0, to_mm = 0;
};

/// Lines of a piece that are scored with one setting: all on one upright or level line, or one
/// slanted line. Places are read on the piece as it is looked at from the face, from its outermost
/// edges.
struct ScoreSetting {
  enum class Way { Upright, Level, Slanted };
  Way way = Way::Upright;
  LineKind kind = LineKind::Valley;  ///< seen from the face
  bool fromBack = false;             ///< scored with the piece turned over, about an upright axis
  double first_mm = 0, other_mm = 0; ///< from the first edge and from the one opposite
  double step_mm = 0;                ///< from the setting before, the first edge for the first
  std::vector<Stretch> stretches;    ///< what is scored
  bool whole = false;                ///< from edge to edge of the piece
  Vec2 from = Vec2::Zero(), to = Vec2::Zero(); ///< Slanted: from the left and the lower edge
  double length_mm = 0, angle_deg = 0;         ///< Slanted: not set, only checked
  /// The mid score of a piece that is longer than the board: made first; the others are read from
  /// the nearer edge.
  bool firstOfLong = false;
  bool fromOther = false; ///< `other_mm` is the one to set
};

/// Something cut inside of a piece or out of its edge.
struct CutMark {
  enum class What { Opening, Slit, Tab, Corner, Trim };
  What what = What::Opening;
  Vec2 from = Vec2::Zero(), to = Vec2::Zero(); ///< corners of its box, or the ends of a slit
  double depth_mm = 0, bevel_deg = 0;          ///< of a tab: beyond its fold; of its ends
  std::string letter;                          ///< of a tab's panel
  bool told = false; ///< a corner that the line of a tab, or of what is trimmed off, tells already
};

/// Why a piece cannot be worked as usual.
enum class PieceNote { LongerThanBoard, LargerThanTrimmer, TooThick, OffGrid };
std::string_view keyOf(PieceNote note); ///< "longer-than-board", ...

/// A distinct piece with all that a hand sets to make it.
struct PieceTable {
  PieceIndex piece; ///< the first of them
  std::string letter;
  std::string paper;
  std::vector<PieceIndex> same;     ///< all that are cut alike, the first one too
  std::vector<PieceIndex> mirrored; ///< and those that are their mirror images
  bool handed = false;              ///< mirror images differ on this paper
  Vec2 size = Vec2::Zero();
  std::vector<ScoreSetting> scores; ///< upright ones from the first edge on, then level, slanted
  std::vector<CutMark> cuts;
  bool plainRectangle = false; ///< its outline; else corners are among the cuts
  std::vector<PieceNote> notes;
  std::size_t count() const { return same.size() + mirrored.size(); }
};

/// Score and cut tables of all pieces, equal ones together, in the order of the assembly.
std::vector<PieceTable> scoreTables(const Assembly& assembly, const Design& design,
                                    const std::vector<FlatPiece>& pieces, const Bench& bench);

} // namespace hinge
