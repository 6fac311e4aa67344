// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/one_sheet.h"
#include "core/production/slices.h"
#include <algorithm>

namespace hinge {
namespace {
constexpr double kBetween_mm = 8.0, kEndless_mm = 1e6;
} // namespace

OneSheet::OneSheet(const Assembly& assembly, const Design& design)
    : pieces(piecesToCut(flatPieces(assembly), design)) {
  double widest = 0;
  for (const FlatPiece& p : pieces)
    widest = std::max({widest, p.bounds.size().x(), p.bounds.size().y()});
  layout = layOut(pieces, widest + 2 * kBetween_mm, kEndless_mm, kBetween_mm, kBetween_mm);
  for (const SheetPlace& place : layout.places)
    for (const Vec2& p : {pieceOf(place).bounds.low, pieceOf(place).bounds.high})
      height_mm = std::max(height_mm, place.onSheet(p).y());
  height_mm += kBetween_mm;
}

const FlatPiece& OneSheet::pieceOf(const SheetPlace& place) const {
  return *std::ranges::find(pieces, place.piece, &FlatPiece::piece);
}

} // namespace hinge
