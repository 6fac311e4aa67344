// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"

namespace hinge {

/// What an edge of a flat pattern is to the paper: its border, a cut with paper on both sides, a
/// fold, or a line on which nothing happens (it parts a panel with holes into plain polygons).
enum class EdgeKind { Border, Cut, Join, Fold };

/// An edge of a flat pattern; on its left hand there is always paper.
struct PatternEdge {
  EdgeKind kind = EdgeKind::Border;
  std::size_t from = 0, to = 0;      ///< vertices
  std::size_t face = 0;              ///< on the left hand of from -> to
  std::optional<std::size_t> beyond; ///< the face on the right hand, if there is paper
  FoldIndex fold;                    ///< of a fold
};

/// A bounded part of a flat pattern that is paper: a simple polygon.
struct PatternFace {
  PanelIndex panel;                 ///< a panel with holes or cuts has several faces
  std::vector<std::size_t> corners; ///< vertices, counter-clockwise
};

/// One flat piece as a planar graph in the piece's frame: edges meet in common vertices only, and
/// every bounded part of the plane is one face or a hole.
struct FlatPattern {
  PieceIndex piece;
  std::vector<Vec2> vertices;
  std::vector<char> onlyBeside; ///< per vertex: corner of a neighbour that meets a straight edge
  std::vector<PatternFace> faces;
  std::vector<PatternEdge> edges;
};

/// Cost: O(n^2) in the corners of the piece.
FlatPattern flatPattern(const Assembly& assembly, PieceIndex piece);

} // namespace hinge
