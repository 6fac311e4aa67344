// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/chain.h"

// Letter fold: a cover over an inner flap over a middle page; the cover opens first.

namespace hinge {
namespace {

constexpr ParameterSpec kTriFold[] = {
    {"cover",
     {"size.tri-fold.cover"},
     ParameterUnit::Millimetre,
     5,
     1000,
     130,
     ParameterRole::Gives,
     ""},
    {"inner",
     {"size.tri-fold.inner"},
     ParameterUnit::Millimetre,
     5,
     1000,
     128.5,
     ParameterRole::Gives,
     ""},
    {"first", {"size.tri-fold.first"}, ParameterUnit::Degree, 10, 170, 90, ParameterRole::Held, ""},
};

ParameterValues fitTriFold(const CardBase& card) {
  return {{"cover", card.pageDepth_mm()}, {"inner", card.pageDepth_mm() - 1.5}, {"first", 90}};
}

Result<void> buildTriFold(const CardBase& card, AssemblyBuilder& builder) {
  const double first = radians(card.value("first"));
  if (card.value("inner") > card.pageDepth_mm())
    return Error{"base.inner-wide", "card.base_values.inner"};
  buildChain(builder,
             {{"page-a", "cover", card.value("cover")},
              {"page-b", "middle-page", card.pageDepth_mm()},
              {"page-c", "inner-flap", card.value("inner")}},
             {{FoldSense::Valley, 180, 0, first}, {FoldSense::Valley, 180, first, kPi}}, 1,
             card.gutterLength_mm());
  return builder.status();
}

} // namespace

const BaseKind& triFoldBase() {
  static const BaseKind kind{"tri-fold", kTriFold, fitTriFold, buildTriFold, 180};
  return kind;
}

} // namespace hinge
