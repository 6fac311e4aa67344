// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/chain.h"
#include <cmath>

// Easel: base page, strut and front make a triangle against a stop when the card is set up.

namespace hinge {
namespace {

constexpr ParameterSpec kEasel[] = {
    {"strut",
     {"size.easel.strut"},
     ParameterUnit::Millimetre,
     5,
     1000,
     65,
     ParameterRole::Gives,
     ""},
    {"stop",
     {"size.easel.stop"},
     ParameterUnit::Millimetre,
     5,
     1000,
     105,
     ParameterRole::Gives,
     ""},
};

ParameterValues fitEasel(const CardBase& card) {
  const double w = card.pageDepth_mm();
  return {{"strut", toHalf_mm(0.5 * w)}, {"stop", toHalf_mm(0.8 * w)}};
}

/// Base page, strut and front make a triangle when the card is set up; the picture leaf, as large
/// as the card, is glued on the outside of the front and covers the strut when the card is shut.
Result<void> buildEasel(const CardBase& card, AssemblyBuilder& builder) {
  const double w = card.pageDepth_mm(), length = card.gutterLength_mm(), p = card.value("strut"),
               q = w - p, stop = card.value("stop");
  if (q < kLeastFront_mm)
    return Error{{"easel.no-front/strut", Millimetres{kLeastFront_mm}}, "card.base_values.strut"};
  if (stop >= p + q - 0.5 || stop <= std::abs(p - q) + 0.5)
    return Error{"easel.stop", "card.base_values.stop"};
  const double lean = std::acos((p * p + stop * stop - q * q) / (2 * p * stop)),
               ridge = std::acos((p * p + q * q - stop * stop) / (2 * p * q));
  const auto panels = buildChain(
      builder, {{"page-a2", "front", q}, {"page-a", "strut", p}, {"page-b", "base-page", w}},
      {{FoldSense::Valley, degrees(ridge), 0.3 * kPi, kPi, true},
       {FoldSense::Valley, degrees(lean), 0, 0.6 * kPi}},
      2, length);
  addPictureLeaf(builder, panels[0], w, length);
  return builder.status();
}

} // namespace

const BaseKind& easelBase() {
  static const BaseKind kind{"easel", kEasel, fitEasel, buildEasel, 180};
  return kind;
}

} // namespace hinge
