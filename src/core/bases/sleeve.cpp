// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/chain.h"

// Sleeve: a tube of four leaves, opposite ones alike, closed by a tab. Pressed flat it is shut; at
// a right angle it stands open; it lies flat again the other way. The tube is a parallelogram, so
// that every fold follows the opening in a straight line.

namespace hinge {
namespace {

constexpr ParameterSpec kSleeve[] = {
    {"depth",
     {"size.sleeve.depth"},
     ParameterUnit::Millimetre,
     5,
     1000,
     40,
     ParameterRole::Gives,
     ""},
    {"tab", {"size.sleeve.tab"}, ParameterUnit::Millimetre, 5, 60, 12, ParameterRole::Held, ""},
};

ParameterValues fitSleeve(const CardBase& card) {
  return {{"depth", toHalf_mm(0.3 * card.pageDepth_mm())}, {"tab", 12}};
}

Result<void> buildSleeve(const CardBase& card, AssemblyBuilder& builder) {
  const double side = card.value("depth"), front = card.pageDepth_mm() - side,
               length = card.gutterLength_mm(), tab = card.value("tab");
  if (front < kLeastFront_mm) return Error{"sleeve.no-front", "card.base_values.depth"};
  if (tab > front) return Error{"sleeve.tab", "card.base_values.tab"};
  // The inside is the face. Shut, the front is folded over the side and its neighbours continue
  // them flat.
  const Crease shutFold{FoldSense::Valley, 180}, flatFold{FoldSense::Valley, 0, 0, kPi, true};
  const auto panels = buildChain(builder,
                                 {{"page-a", "front", front},
                                  {"page-b", "side", side},
                                  {"page-c", "back", front},
                                  {"page-d", "other-side", side}},
                                 {shutFold, flatFold, shutFold}, 1, length);
  const double end = side + front + side, round = 2 * (side + front);
  const PanelIndex closing =
      builder.panel(builder.assembly().panels[panels[0]].piece, "closing-tab", "closing-tab",
                    PanelUse::Tab, tabOutline({end, 0}, {end, length}, tab, 30));
  builder.fold("fold-of-tab", "fold-of-the-tab", panels[3], closing, {end, 0}, {end, length},
               FoldSense::Valley, 0);
  builder.glue(closing, panels[0], Iso3(Eigen::Translation3d(-round, 0, 0)), false);
  offerFold(builder, "fold-4", Text("fold", 4),
            {panels[3], planarFrame({end, 0}, -Vec2::UnitX(), Vec2::UnitY())},
            {panels[0], planarFrame({-front, 0}, Vec2::UnitX(), Vec2::UnitY())}, length, kPi);
  return builder.status();
}

} // namespace

const BaseKind& sleeveBase() {
  static const BaseKind kind{"sleeve", kSleeve, fitSleeve, buildSleeve, 90, Rests::OnEdge};
  return kind;
}

} // namespace hinge
