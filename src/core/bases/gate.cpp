// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/chain.h"

// Gate: a middle page closed by two flaps.

namespace hinge {
namespace {

constexpr ParameterSpec kGate[] = {
    {"left",
     {"size.gate.left"},
     ParameterUnit::Millimetre,
     5,
     1000,
     64.5,
     ParameterRole::Gives,
     "right"},
    {"right",
     {"size.gate.right"},
     ParameterUnit::Millimetre,
     5,
     1000,
     64.5,
     ParameterRole::Gives,
     "left"},
    {"open", {"size.gate.open"}, ParameterUnit::Degree, 5, 180, 180, ParameterRole::Held, ""},
};

ParameterValues fitGate(const CardBase& card) {
  const double flap = toHalf_mm(0.5 * card.pageDepth_mm()) - 0.5;
  return {{"left", flap}, {"right", flap}, {"open", 180}};
}

Result<void> buildGate(const CardBase& card, AssemblyBuilder& builder) {
  const double open = card.value("open");
  if (card.value("left") + card.value("right") > card.pageDepth_mm())
    return Error{"base.flaps-meet", "card.base_values"};
  const auto pages =
      buildChain(builder,
                 {{"page-a", "left-flap", card.value("left")},
                  {"page-b", "middle-page", card.pageDepth_mm()},
                  {"page-c", "right-flap", card.value("right")}},
                 {{FoldSense::Valley, open}, {FoldSense::Valley, open}}, 1, card.gutterLength_mm());
  builder.assembly().panels[pages[1]].twin = {};
  builder.twins(pages[0], pages[2]);
  return builder.status();
}

} // namespace

const BaseKind& gateBase() {
  static const BaseKind kind{"gate", kGate, fitGate, buildGate, 90};
  return kind;
}

} // namespace hinge
