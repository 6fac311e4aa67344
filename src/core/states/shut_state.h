// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/states/laid_on.h"
#include <span>

namespace hinge {

/// How many sheets lie on one another in the shut card, on a square grid over the plane of the
/// pages. Places narrower than a cell may be missed.
struct ThicknessMap {
  double cell_mm = 1;
  Vec2 origin = Vec2::Zero(); ///< corner of the first cell, in the flat frame of the first page
  int columns = 0, rows = 0;
  std::vector<unsigned short> sheets; ///< row by row
  std::vector<double> high_mm;        ///< the same cells: how thick the card is there

  int at(int column, int row) const {
    return sheets[static_cast<std::size_t>(row * columns + column)];
  }
  double highAt_mm(int column, int row) const {
    return high_mm[static_cast<std::size_t>(row * columns + column)];
  }
};

/// One of the things that lie on one another at a place of the shut card.
struct StackedSheet {
  PanelIndex panel;  ///< it is, or it lies on
  std::string paper; ///< empty: pads
  bool laid = false; ///< on the panel
  double thickness_mm = 0;
};

/// The shut card as it goes into its envelope.
struct ShutState {
  double width_mm = 0,
         height_mm = 0;    ///< of everything, parts that poke out included, as the card is held
  double thickness_mm = 0; ///< at the thickest place, pressed flat, heads of pins included
  double pads_mm =
      0; ///< pads this high beside the pins carry what lies over their heads; 0 without pins
  int thickestSheets = 0;
  Vec2 thickestPlace = Vec2::Zero(); ///< middle of that cell, flat frame of the first page
  int gutterSheets =
      0; ///< sheets besides the pages that lie along the gutter: the fold must wrap them
  double gutterRelief_mm = 0; ///< how far to offset the fold for them: half the thickness of each
  std::vector<StackedSheet> stack; ///< at the thickest place, in the order of the assembly
  ThicknessMap map;
};

/// The leaves alone, x across the folds: as they are cut, and as they lie in the shut card, in the
/// frame of its ground.
Box2 flatLeaves(const Assembly& assembly);
Box2 shutLeaves(const Assembly& assembly);

/// Evaluates the exact shut state (structures that do not shut flat lie where their first rings put
/// them), every sheet as thick as its paper, with what is laid on panels. Cost: the area of all
/// panels divided by that of a cell.
ShutState shutState(const Motion& motion, const Design& design, std::span<const LaidOn> laid = {},
                    double cell_mm = 1.0);

} // namespace hinge
