// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/production/flat_piece.h"

namespace hinge {

constexpr double kLabelHeight_mm = 3.2; ///< of names and letters, where there is room for it

/// Where the letters of a piece's panels and its name go, the name first: inside of panels, off
/// their folds. Pages have them at their foot: structures stand in their middle.
std::vector<FlatLabel> labelsOf(const Assembly& assembly, PieceIndex piece);

/// How a text is written into a label: height in mm, `wanted_mm` where there is room for it, and
/// whether it runs upwards because there is more room that way (one letter never does). Nothing
/// when it would be too small to read.
struct Lettering {
  double height_mm = kLabelHeight_mm;
  bool upwards = false;
};
std::optional<Lettering> letteringOf(const FlatLabel& label, std::size_t characters,
                                     double wanted_mm = kLabelHeight_mm);

} // namespace hinge
