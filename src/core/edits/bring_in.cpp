// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/bring_in.h"
#include "core/bases/base.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include "core/units/tolerances.h"
#include <algorithm>

namespace hinge {
namespace {

PieceWork fromZero(PieceWork piece) {
  const Vec2 low = boundsOf(piece.outline).low;
  eachPoint(piece, [&](Vec2& p) { p -= low; });
  return piece;
}

bool acrossPaper(const PieceWork& piece, const WorkLine& line) {
  return std::ranges::all_of(std::array{line.from, line.to}, [&](const Vec2& p) {
    return distanceToOutline(piece.outline, p) < kTouch_mm;
  });
}

} // namespace

Result<Added> withPieceIn(const Design& design, const PieceWork& piece, std::string_view seat) {
  const auto assembled = assembleDesign(design);
  if (!assembled) return assembled.error();
  const std::string on = seat.empty() ? firstSeat(*assembled) : std::string(seat);
  if (!assembled->findSeat(on)) return Error{{"seat.unknown", on}, ""};
  const StructureKind* kind = findStructureKind("piece");
  return addStructure(design, kind->key, on, startingValues(kind->parameters), fromZero(piece));
}

Result<Design> withBaseIn(const Design& design, const PieceWork& piece) {
  Design made = design;
  auto card = onBase(design.card, sheetBase().key);
  if (!card) return card.error();
  PieceWork sheet = fromZero(piece);
  for (WorkLine& line : sheet.lines)
    if (line.kind != WorkLine::Kind::Cut && acrossPaper(sheet, line)) {
      line.moves = FoldMoves();
      line.folded_deg.reset(); // the card's opening says it
    }
  made.card = *card, made.card.sheets = {std::move(sheet)}, made.card.ground.reset();
  if (made.card.sheets.front().lines.empty()) made.card.rests = Rests::OnPage;
  made.structures.clear();
  if (auto assembled = assembleDesign(made); !assembled) return assembled.error();
  made.card = withFinishedSize(made);
  return made;
}

Result<Design> withOpeningsIn(const Design& design, const SheetTarget& target,
                              std::vector<Polygon> openings, const std::optional<Vec2>& middle) {
  SheetInWork sheet = sheetOf(design, target);
  if (sheet.work.outline.empty()) return Error{"sheet.not-there", ""};
  const Vec2 corner = boundsOf(sheet.work.outline).low;
  Box2 all;
  for (const Polygon& opening : openings)
    all.add(boundsOf(opening));
  const Vec2 by = middle ? Vec2(corner + *middle - all.centre()) : corner;
  for (Polygon& opening : openings) {
    for (Vec2& p : opening)
      p += by;
    sheet.work.windows.push_back(std::move(opening));
  }
  return withSheet(design, target, sheet);
}

} // namespace hinge
