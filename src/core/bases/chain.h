// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/bases/base.h"
#include "core/units/lattice.h"
#include <cmath>

namespace hinge {

/// A base of leaves in a row, joined by parallel folds and cut from one sheet. Flat frame: x across
/// the folds, y along them, the inside of the card is the face. The ground leaf lies still with its
/// left edge at x = 0; the fold there is the gutter.
struct Leaf {
  std::string key; ///< "page-a"
  Text label;
  double width_mm;
};

/// The fold to the right of a leaf, seen from the face. Shut it is folded right over (or still
/// flat, for folds that are made only when the card is set up).
struct Crease {
  FoldSense sense = FoldSense::Valley;
  double open_deg = 180; ///< angle between its leaves when the card is open; 180 is flat
  double from_rad = 0, to_rad = kPi; ///< openings between which it moves
  bool flatWhenShut = false;
};

/// Builds leaves, driven folds and seats on both sides of every fold; returns the panels. Needs one
/// crease less than leaves.
std::vector<PanelIndex> buildChain(AssemblyBuilder& builder, const std::vector<Leaf>& leaves,
                                   const std::vector<Crease>& creases, std::size_t ground,
                                   double length_mm);

/// Offers a fold from both sides as seats, with the opening that it has on the face when shut.
void offerFold(AssemblyBuilder& builder, const std::string& key, const Text& label,
               const SeatSide& left, const SeatSide& right, double length_mm,
               double shutOpening_rad);

/// Glues a leaf as large as the card on the outside of the front, which covers what stands behind
/// it.
void addPictureLeaf(AssemblyBuilder& builder, PanelIndex front, double width_mm, double length_mm);

constexpr double kLeastFront_mm = 5; ///< of a leaf that shows

/// Rounded to half millimetres, as starting sizes are.
inline double toHalf_mm(double mm) {
  return onLattice(mm);
}

} // namespace hinge
