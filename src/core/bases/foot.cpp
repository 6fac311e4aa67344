// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/chain.h"

// Foot: a page that stands at an angle on a leaf that lies on the table.

namespace hinge {
namespace {

constexpr ParameterSpec kFoot[] = {
    {"foot", {"size.foot.foot"}, ParameterUnit::Millimetre, 5, 1000, 60, ParameterRole::Gives, ""},
    {"open", {"size.foot.open"}, ParameterUnit::Degree, 45, 135, 90, ParameterRole::Held, ""},
};

ParameterValues fitFoot(const CardBase& card) {
  return {{"foot", toHalf_mm(0.6 * card.pageDepth_mm())}, {"open", 90}};
}

Result<void> buildFoot(const CardBase& card, AssemblyBuilder& builder) {
  buildChain(
      builder,
      {{"page-a", "standing-page", card.pageDepth_mm()}, {"page-b", "foot", card.value("foot")}},
      {{FoldSense::Valley, card.value("open")}}, 1, card.gutterLength_mm());
  return builder.status();
}

} // namespace

const BaseKind& footBase() {
  static const BaseKind kind{"foot", kFoot, fitFoot, buildFoot, 180};
  return kind;
}

} // namespace hinge
