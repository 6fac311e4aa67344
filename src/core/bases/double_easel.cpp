// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/chain.h"
#include <cmath>

// Double easel: the front is folded to and fro, so that it stands on the base page in two tents one
// before the other.

namespace hinge {
namespace {

constexpr ParameterSpec kDoubleEasel[] = {
    {"strut",
     {"size.double-easel.strut"},
     ParameterUnit::Millimetre,
     5,
     1000,
     32,
     ParameterRole::Gives,
     ""},
    {"front",
     {"size.double-easel.front"},
     ParameterUnit::Millimetre,
     5,
     1000,
     32,
     ParameterRole::Gives,
     ""},
    {"strut2",
     {"size.double-easel.strut2"},
     ParameterUnit::Millimetre,
     5,
     1000,
     32,
     ParameterRole::Gives,
     ""},
    {"stop",
     {"size.double-easel.stop"},
     ParameterUnit::Millimetre,
     5,
     1000,
     45,
     ParameterRole::Gives,
     ""},
    {"stop2",
     {"size.double-easel.stop2"},
     ParameterUnit::Millimetre,
     5,
     1000,
     95,
     ParameterRole::Gives,
     ""},
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
  if (q2 < kLeastFront_mm)
    return Error{{"easel.no-front", Millimetres{kLeastFront_mm}}, "card.base_values.strut2"};
  const auto first = tentOf(p, q, card.value("stop")),
             second = tentOf(p2, q2, card.value("stop2") - card.value("stop"));
  if (!first) return Error{"easel.stop", "card.base_values.stop"};
  if (!second) return Error{"easel.stop/second", "card.base_values.stop2"};
  // The front is lifted first and bent while it comes down.
  const double lift = 0.45 * kPi, bend = 0.2 * kPi;
  const auto panels = buildChain(
      builder,
      {{"page-a4", "second-front", q2},
       {"page-a3", "second-strut", p2},
       {"page-a2", "front", q},
       {"page-a", "strut", p},
       {"page-b", "base-page", w}},
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
  static const BaseKind kind{"double-easel", kDoubleEasel, fitDoubleEasel, buildDoubleEasel, 180};
  return kind;
}

} // namespace hinge
