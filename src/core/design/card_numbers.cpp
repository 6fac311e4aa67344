// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/design/card_numbers.h"
#include <algorithm>

namespace hinge {

std::span<const CardNumber> cardNumbers() {
  using U = ParameterUnit;
  constexpr double kLargest = 1e4, kSteepest_deg = 80; // as files have them
  static const CardNumber all[] = {
      {"display_deg", U::Degree, [](Design& d) -> double& { return d.card.display_deg; }, 0, 180},
      {"open_by_deg", U::Degree, [](Design& d) -> double& { return d.card.openBy_deg; }, 0, 180},
      {"works_from_deg", U::Degree, [](Design& d) -> double& { return d.card.worksFrom_deg; }, 0,
       180},
      {"works_to_deg", U::Degree, [](Design& d) -> double& { return d.card.worksTo_deg; }, 0, 180},
      {"thickness", U::Millimetre, [](Design& d) -> double& { return d.cardPaper().thickness_mm; },
       0, kLargestThickness_mm},
      {"weight_gsm", U::Count, [](Design& d) -> double& { return d.cardPaper().weight_gsm; }, 0,
       kLargestWeight_gsm},
      {"least_tab", U::Millimetre, [](Design& d) -> double& { return d.settings.leastTabDepth_mm; },
       0, kLargest},
      {"tab_bevel_deg", U::Degree, [](Design& d) -> double& { return d.settings.tabBevel_deg; }, 0,
       kSteepest_deg},
      {"fold_clearance", U::Millimetre,
       [](Design& d) -> double& { return d.settings.foldClearance_mm; }, 0, kLargest},
      {"edge_reserve", U::Millimetre,
       [](Design& d) -> double& { return d.settings.edgeReserve_mm; }, 0, kLargest},
      {"mat_border", U::Millimetre, [](Design& d) -> double& { return d.settings.matBorder_mm; }, 0,
       kLargest},
      {"pin_play", U::Millimetre, [](Design& d) -> double& { return d.settings.pinPlay_mm; }, 0,
       starting::kMostPinPlay_mm},
      {"closure", U::Millimetre, [](Design& d) -> double& { return d.settings.closureLimit_mm; }, 0,
       starting::kMostClosureLimit_mm}};
  return all;
}

const CardNumber* findCardNumber(std::string_view key) {
  const auto all = cardNumbers();
  const auto found = std::ranges::find(all, key, &CardNumber::key);
  return found == all.end() ? nullptr : &*found;
}

Result<void> setCardNumber(Design& design, const CardNumber& number, std::string_view text) {
  const bool length = number.unit == ParameterUnit::Millimetre;
  const auto typed = length ? parseLength_mm(text, design.settings.unit) : parseAngle_deg(text);
  if (!typed) return Error{typed.error().message, std::string(number.key)};
  if (!(*typed >= number.least && *typed <= number.most)) {
    const auto said = [&](double value) {
      return length ? Said(Millimetres{value}) : Said(Decimal{value, 2});
    };
    return Error{{"value.range", said(*typed), said(number.least), said(number.most)},
                 std::string(number.key)};
  }
  number.of(design) = *typed;
  return {};
}

} // namespace hinge
