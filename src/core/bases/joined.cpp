// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/base.h"

// Joined fold: two pages from two sheets, for cards wider than the sheet at hand. The first page
// has a flap beyond the fold, the second is glued on it with its edge in the fold.

namespace hinge {
namespace {

constexpr ParameterSpec kJoined[] = {
    {"flap",
     {"size.joined-fold.flap"},
     ParameterUnit::Millimetre,
     6,
     1000,
     15,
     ParameterRole::Held,
     ""},
};

ParameterValues fitJoined(const CardBase&) {
  return {{"flap", 15}};
}

Result<void> buildJoined(const CardBase& card, AssemblyBuilder& builder) {
  const double w = card.pageDepth_mm(), l = card.gutterLength_mm(), flap = card.value("flap");
  if (flap > w) return Error{"joined.flap", "card.base_values.flap"};
  const PieceIndex sheet = builder.piece("sheet", "card"),
                   second = builder.piece("sheet-b", "second-page");
  const PanelIndex pageA = builder.panel(sheet, "page-a", Text("page", "a"), PanelUse::Page,
                                         {{-w, 0}, {0, 0}, {0, l}, {-w, l}});
  const PanelIndex joining = builder.panel(sheet, "flap", "joining-flap", PanelUse::Page,
                                           {{0, 0}, {flap, 0}, {flap, l}, {0, l}});
  const PanelIndex pageB = builder.panel(second, "page-b", Text("page", "b"), PanelUse::Page,
                                         {{0, 0}, {w, 0}, {w, l}, {0, l}});
  builder.twins(pageA, pageB);
  Assembly& assembly = builder.assembly();
  assembly.drives = {
      {builder.fold("gutter", "gutter", pageA, joining, {0, 0}, {0, l}, FoldSense::Valley, kPi)}};
  assembly.root = pageA;
  builder.glue(pageB, joining, Iso3::Identity(), false);
  const SeatSide sideA{pageA, planarFrame({0, 0}, -Vec2::UnitX(), Vec2::UnitY())},
      sideB{pageB, planarFrame({0, 0}, Vec2::UnitX(), Vec2::UnitY())};
  builder.seat("gutter", "gutter", sideA, sideB, l, 0);
  builder.faceSeats(pageB, {0, l}, {0, 0}); // it has no fold of its own to stand on
  return builder.status();
}

} // namespace

const BaseKind& joinedBase() {
  static const BaseKind kind{"joined-fold", kJoined, fitJoined, buildJoined};
  return kind;
}

} // namespace hinge
