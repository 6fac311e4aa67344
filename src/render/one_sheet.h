// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/design.h"
#include "core/production/flat_piece.h"

namespace hinge {

/// All pieces of a card beside one another on one long sheet, as wide as the widest of them needs:
/// what cutting files draw. mm, y up from the lower edge.
struct OneSheet {
  std::vector<FlatPiece> pieces;
  SheetLayout layout;
  double height_mm = 0;

  OneSheet(const Assembly& assembly, const Design& design);
  const FlatPiece& pieceOf(const SheetPlace& place) const;
};

} // namespace hinge
