// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/production/slices.h"

namespace hinge {

/// Of a printed sheet: its margins, the strip at its lower edge for the ruler and the title, and
/// the room between pieces.
constexpr double kSheetMargin_mm = 10, kSheetFooter_mm = 14, kSheetGap_mm = 6;

/// What is cut, and where it lies on the sheets: shared by the PDF and the window.
struct Sheets {
  std::vector<FlatPiece> pieces;
  SheetLayout layout;
};

/// The pieces on sheets of the size the design names, taken together into wide strips when it wants
/// that.
Sheets sheetsFor(const std::vector<FlatPiece>& pieces, const Design& design);

} // namespace hinge
