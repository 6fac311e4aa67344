// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/production/cut_plan.h"

namespace hinge {

/// Sheets of one paper from which parts are cut.
struct SheetSupply {
  double width_mm = 0, height_mm = 0;
  int count = 0; ///< how many there are
};

/// What a packer made of the parts of one paper.
struct Packed {
  std::vector<LaidSheet> sheets;
  std::vector<std::size_t> left; ///< parts without a place
  /// Trimmer: the cuts of each sheet as a tree, see TrimNode.
  std::vector<struct TrimNode> nodes;
  std::vector<std::size_t> roots; ///< per sheet
};

/// A blank in the trimmer's plan: cut in two, or a part, or left over.
struct TrimNode {
  Box2 box;
  bool upright = false;             ///< `first` is cut off along x
  std::size_t first = 0, rest = 0;  ///< nodes; 0: not cut
  std::optional<std::size_t> place; ///< in the places of its sheet
};

/// Packs rectangles so that they can be cut edge to edge (guillotine cuts), trying several orders
/// and rules until the time is over; the first is done at once. `which` are the parts of one paper.
Packed packForTrimmer(const std::vector<CutPart>& parts, const std::vector<std::size_t>& which,
                      std::vector<SheetSupply> supply, const LayoutOptions& options,
                      std::stop_token stop);
/// The cuts of packed sheets in an order with few settings of the stop; the blanks of the sheets
/// come first.
std::vector<TrimCut> cutsOf(const std::vector<Packed>& packed, const std::vector<CutPart>& parts);

/// Nests true outlines, holes used: each part at the lowest place, then the one farthest to the
/// left, where it touches nothing (no-fit regions from Minkowski sums of convex parts).
Packed nestForMachine(const std::vector<CutPart>& parts, const std::vector<std::size_t>& which,
                      std::vector<SheetSupply> supply, const LayoutOptions& options,
                      std::stop_token stop, const std::function<void()>& placed);

/// Orders layouts of the same parts: fewer parts left, less sheet area, less waste.
bool better(const Packed& a, const Packed& b);

} // namespace hinge
