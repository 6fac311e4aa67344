// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/chain.h"
#include <cmath>

// Double easel: the front is folded to and fro, so that it stands on the base page in two tents one
// before the other.

namespace hinge {
namespace {

constexpr ParameterSpec kDoubleEasel[] = {
    {"strut", "First strut", ParameterUnit::Millimetre, 5, 1000, 32, ParameterRole::Gives, "",
     "From the gutter to the first ridge"},
    {"front", "First front", ParameterUnit::Millimetre, 5, 1000, 32, ParameterRole::Gives, "",
     "From the first ridge down to the page"},
    {"strut2", "Second strut", ParameterUnit::Millimetre, 5, 1000, 32, ParameterRole::Gives, "",
     "From there up to the second ridge; what is left of the page is the second front"},
    {"stop", "First stop at", ParameterUnit::Millimetre, 5, 1000, 45, ParameterRole::Gives, "",
     "From the gutter to where the first front stands"},
    {"stop2", "Second stop at", ParameterUnit::Millimetre, 5, 1000, 95, ParameterRole::Gives, "",
     "From the gutter to where the second front stands"},
};

ParameterValues fitDoubleEasel(const CardBase& card) {
  const double w = card.pageDepth_mm(), quarter = toHalf_mm(0.25 * w);
  return {{"strut", quarter},
          {"front", quarter},
          {"strut2", quarter},
          {"stop", toHalf_mm(0.34 * w)},
          {"stop2", toHalf_mm(0.74 * w)}};
}

/// Angles of a tent on the page: at its back foot, ridge and front foot.
struct Tent {
  double back, ridge, front;
};
std::optional<Tent> tentOf(double strut, double front, double span) {
  if (span >= strut + front - 0.5 || span <= std::abs(strut - front) + 0.5) return std::nullopt;
  const auto angle = [](double a, double b, double opposite) {
    return std::acos((a * a + b * b - opposite * opposite) / (2 * a * b));
  };
  return Tent{angle(strut, span, front), angle(strut, front, span), angle(front, span, strut)};
}

Result<void> buildDoubleEasel(const CardBase& card, AssemblyBuilder& builder) {
  const double w = card.pageDepth_mm(), length = card.gutterLength_mm(), p = card.value("strut"),
               q = card.value("front"), p2 = card.value("strut2"), q2 = w - p - q - p2;
  if (q2 < 5)
    return Error{"easel.no-front", "struts and first front leave less than 5 mm for the second one",
                 "card.base_values.strut2"};
  const auto first = tentOf(p, q, card.value("stop")),
             second = tentOf(p2, q2, card.value("stop2") - card.value("stop"));
  if (!first)
    return Error{"easel.stop",
                 "strut and front cannot reach a stop at this distance from the gutter",
                 "card.base_values.stop"};
  if (!second)
    return Error{"easel.stop",
                 "the second strut and front cannot reach a stop at this distance from the first",
                 "card.base_values.stop2"};
  // The front is lifted first and bent while it comes down.
  const double lift = 0.45 * kPi, bend = 0.2 * kPi;
  const auto panels = buildChain(
      builder,
      {{"page-a4", "second front", q2},
       {"page-a3", "second strut", p2},
       {"page-a2", "front", q},
       {"page-a", "strut", p},
       {"page-b", "base page", w}},
      {{FoldSense::Valley, degrees(second->ridge), bend, kPi, true},
       {FoldSense::Mountain, degrees(kPi - first->front - second->back), bend, kPi, true},
       {FoldSense::Valley, degrees(first->ridge), bend, kPi, true},
       {FoldSense::Valley, degrees(first->back), 0, lift}},
      4, length);
  addPictureLeaf(builder, panels[0], w, length);
  return builder.status();
}

} // namespace

const BaseKind& doubleEaselBase() {
  static const BaseKind kind{"double-easel",
                             "Double easel",
                             "A front folded in a Z that stands on the base page in two tents",
                             kDoubleEasel,
                             fitDoubleEasel,
                             buildDoubleEasel,
                             180};
  return kind;
}

} // namespace hinge
