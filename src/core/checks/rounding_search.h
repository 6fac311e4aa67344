// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/checks/analysis.h"
#include "core/edits/rounding.h"

namespace hinge {

/// As long as a person waits for a list of numbers.
constexpr std::chrono::seconds kMostForRounding(20);

/// A card on the maker's lattice, and what the checks say of it then.
struct JudgedRounding {
  Rounding rounding;
  Analysis analysis;
  RoundingKeeps keeps = RoundingKeeps::ShutFlat; ///< what had to be kept for that
};

/// The rounding with the least greatest change (see roundedTo) that spoils nothing. Where the card
/// comes out spoiled that was not, it is tried again with the way in which everything moves kept;
/// when that is not possible or does not help, the first answer stands, and its analysis tells why.
Result<JudgedRounding> judgedRounding(const Analysis& before, double step_mm,
                                      const std::set<std::string>& held,
                                      std::chrono::duration<double> most, std::stop_token stop = {},
                                      const Progress& progress = {});

} // namespace hinge
