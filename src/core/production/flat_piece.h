// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/paper/starting_values.h"

namespace hinge {

enum class LineKind { Cut, Mountain, Valley };

/// A run of line of one kind in the piece's flat frame; closed when first and last corner are
/// joined.
struct FlatLine {
  LineKind kind = LineKind::Cut;
  std::vector<Vec2> corners;
  bool closed = false;
};

/// An area of the piece's plane: a tab that gets glue, or the place on a panel where another
/// piece's tab goes.
struct FlatArea {
  PanelIndex panel; ///< the tab
  Region outline;
  bool onFace = true; ///< glue on the face side, or the mark belongs on the face side
};

/// Where the name of a piece, or the letter of one of its panels, is written: in the middle of a
/// level rectangle in which there is no fold.
struct FlatLabel {
  PieceIndex piece;
  PanelIndex panel; ///< not valid: the name of the piece
  Vec2 at;
  Vec2 room; ///< width and height of the rectangle
};

/// Everything that is drawn of a flat piece, in its own frame (mm, face up).
struct FlatPiece {
  PieceIndex piece;
  std::vector<FlatLine> lines;
  std::vector<FlatArea> glue;  ///< this piece's own tabs
  std::vector<FlatArea> marks; ///< where tabs of other pieces are glued on
  std::vector<FlatLabel> labels;
  std::vector<PieceIndex>
      slices; ///< of a wide sheet that is sliced afterwards: all strips, from below; else empty
  Box2 bounds;
  std::string paper; ///< it is cut from: a key in the drawer
  int part = 0;      ///< of a piece that is parted for its sheets, from 1; 0: whole
};

/// The paper of a piece: its outermost cut line and the openings in it; bare cuts are not told.
Region paperOf(const FlatPiece& piece);

/// Under the front of a pocket glue stays away from what slides there by as much as that is thick.
FlatPiece flatPiece(const Assembly& assembly, PieceIndex piece);
std::vector<FlatPiece> flatPieces(const Assembly& assembly);

/// Where a piece goes on a sheet: piece frame -> rotate by 90 degrees if asked -> translate.
struct SheetPlace {
  PieceIndex piece;
  int sheet = 0;
  bool turned = false;
  Vec2 offset = Vec2::Zero();
  bool oversize = false;  ///< larger than the sheet: alone on its (tiled) drawing
  bool toTheEdge = false; ///< as large as the sheet, or nearly: alone on it, without margins
  Vec2 onSheet(const Vec2& p) const { return (turned ? Vec2(-p.y(), p.x()) : p) + offset; }
};

/// Where all pieces go on how many sheets of one size (mm).
struct SheetLayout {
  double width_mm = 0, height_mm = 0, margin_mm = 0;
  std::vector<SheetPlace> places;
  int sheets = 0;
  std::vector<std::string> papers; ///< per sheet: what it is a sheet of; empty when nobody asked
};

/// Puts the pieces on sheets in rows, tallest first, from the lower edge (y = margin) or from the
/// upper one; y = 0 lies above a strip at the lower edge of the sheet that is kept for other
/// things. A piece that only the whole sheet holds, margins and strip included, gets one for
/// itself; pieces that fit on no sheet get one of their own, as large as they need, and are marked.
SheetLayout layOut(const std::vector<FlatPiece>& pieces, double sheetWidth_mm,
                   double sheetHeight_mm, double margin_mm, double gap_mm, bool fromTop = false,
                   double strip_mm = 0);

} // namespace hinge
