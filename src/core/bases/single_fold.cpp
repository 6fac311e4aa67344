// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/base.h"

// One sheet with one valley fold. Flat frame: the gutter is the y axis from 0 to its length, page a
// lies at -x, page b at +x, the inside of the card is the face.

namespace hinge {
namespace {

ParameterValues startingBase(const CardBase&) {
  return {};
}

Result<void> buildSingleFold(const CardBase& card, AssemblyBuilder& builder) {
  const double w = card.pageDepth_mm(), l = card.gutterLength_mm();
  const PieceIndex sheet = builder.piece("sheet", "card");
  const PanelIndex pageA = builder.panel(sheet, "page-a", Text("page", "a"), PanelUse::Page,
                                         {{-w, 0}, {0, 0}, {0, l}, {-w, l}});
  const PanelIndex pageB = builder.panel(sheet, "page-b", Text("page", "b"), PanelUse::Page,
                                         {{0, 0}, {w, 0}, {w, l}, {0, l}});
  builder.twins(pageA, pageB);
  Assembly& assembly = builder.assembly();
  assembly.drives = {
      {builder.fold("gutter", "gutter", pageA, pageB, {0, 0}, {0, l}, FoldSense::Valley, kPi)}};
  assembly.root = pageA;
  const SeatSide sideA{pageA, planarFrame({0, 0}, -Vec2::UnitX(), Vec2::UnitY())};
  const SeatSide sideB{pageB, planarFrame({0, 0}, Vec2::UnitX(), Vec2::UnitY())};
  builder.seat("gutter", "gutter", sideA, sideB, l, 0);
  return builder.status();
}

} // namespace

const BaseKind& singleFoldBase() {
  static const BaseKind kind{"single-fold", {}, startingBase, buildSingleFold};
  return kind;
}

} // namespace hinge
