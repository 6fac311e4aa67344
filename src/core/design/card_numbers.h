// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/design.h"
#include <span>

namespace hinge {

/// A number of the card as a whole or of its settings: what the command line sets and what stands
/// on the card's page.
struct CardNumber {
  std::string_view key; ///< "display_deg", "least_tab"
  ParameterUnit unit;
  double& (*of)(Design&);
  double least, most;
};

/// All of them, in the order in which they are written.
std::span<const CardNumber> cardNumbers();
const CardNumber* findCardNumber(std::string_view key);
/// Sets one as it is typed, a length in the design's unit; refuses what is out of its range.
Result<void> setCardNumber(Design& design, const CardNumber& number, std::string_view text);

} // namespace hinge
