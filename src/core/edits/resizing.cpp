// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/resizing.h"
#include "core/bases/base.h"
#include "core/edits/edits.h"
#include "core/edits/sheet.h"
#include "core/pieces/outline_edits.h"
#include "core/states/shut_state.h"
#include "core/structures/assemble.h"
#include "core/units/lattice.h"
#include <cmath>

namespace hinge {
namespace {

/// Which of the two finished sizes runs that way.
double& sizeOf(CardBase& card, bool across) {
  return across == (card.fold == FoldSide::Side) ? card.width_mm : card.height_mm;
}

/// How much the flat leaves grow for each millimetre of the finished size; 0: not at all.
double growth(const Design& design, bool across) {
  constexpr double kStep_mm = 1;
  const auto flat = [&](double by_mm) -> std::optional<double> {
    Design bare{.card = design.card};
    sizeOf(bare.card, across) += by_mm;
    const auto assembly = assembleDesign(bare);
    if (!assembly) return std::nullopt;
    return flatLeaves(*assembly).size()[across ? 0 : 1];
  };
  const auto before = flat(0), after = flat(kStep_mm);
  return before && after ? (*after - *before) / kStep_mm : 0;
}

Result<Design> withSheetEdgePulled(const Design& design, bool across, double by_mm) {
  const SheetTarget target;
  SheetInWork sheet = sheetOf(design, target);
  const auto edge = edgeOnSide(sheet.work.outline, across ? SheetEdge::Right : SheetEdge::Top);
  if (!edge) return Error{"sheet.no-edge", ""};
  const double width = widthAt_mm(sheet.work, *edge);
  const double to = onLattice(width + by_mm, latticeStep_mm(design.settings.unit));
  auto pulled = withEdgeMoved(sheet.work, *edge, to - width);
  if (!pulled) return pulled.error();
  sheet.work = std::move(pulled).value();
  return withSheet(design, target, sheet);
}

} // namespace

Result<Design> withEdgePulled(const Design& design, CardFigure figure, bool across, double by_mm) {
  const bool open = figure == CardFigure::Open;
  if (open && design.card.kind == sheetBase().key)
    return withSheetEdgePulled(design, across, by_mm);
  const double grows = open ? growth(design, across) : 1;
  constexpr double kLeast = 1e-6;
  if (std::abs(grows) < kLeast) return Error{"card.edge-stays", "card"};
  CardBase card = design.card;
  double& size_mm = sizeOf(card, across);
  size_mm = onLattice(size_mm + by_mm / grows, latticeStep_mm(design.settings.unit));
  return setCard(design, card);
}

} // namespace hinge
