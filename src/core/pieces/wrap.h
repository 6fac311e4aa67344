// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/mechanism.h"

namespace hinge {

/// A strap that is folded round a panel of another piece and glued to itself.
struct Wrap {
  PieceIndex piece;
  PanelIndex carrier;   ///< what it goes round
  PanelIndex panel;     ///< of the strap, that lies on the carrier
  int layers = 1;       ///< of paper inside
  double thick_mm = 0;  ///< of all paper inside
  double width_mm = 0;  ///< of what is inside, along the strap
  double inside_mm = 0; ///< between the strap's two folds
  double needed_mm = 0; ///< what they must be apart
};

/// True when a panel of the piece is glued to another one of it.
bool isGluedToItself(const Assembly& assembly, PieceIndex piece);

/// How far apart the folds of a strap must be: the width inside, a hand's play on both sides, and
/// at each fold half a turn round what is inside, `inside_mm` thick, of which each of its two
/// panels gives one half (the strap's own paper, `own_mm` thick, is counted to its middle).
double wrapWidth_mm(double width_mm, double inside_mm, double own_mm);

/// All straps of an assembly: pieces glued to themselves with a panel of something else between.
std::vector<Wrap> wrapsOf(const Assembly& assembly);

/// What a strap at `toStrap` (from the carrier's piece; x along the strap) between two heights goes
/// round: all that is glued flat to the carrier or slides on it, without the strap itself.
struct Inside {
  Box2 extent; ///< in the strap's frame
  int layers = 0;
  double thick_mm = 0;
};
Inside insideOf(const Assembly& assembly, const Mechanism& bodies, PanelIndex carrier,
                std::optional<PieceIndex> strap, const Iso3& toStrap, double low, double high);

} // namespace hinge
