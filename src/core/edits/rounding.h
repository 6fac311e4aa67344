// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/progress.h"
#include "core/motion/motion.h"
#include <chrono>
#include <set>
#include <stop_token>

namespace hinge {

/// A length that moved to the lattice.
struct RoundedLength {
  std::string key; ///< "s3.a"
  Text label;
  double from_mm = 0, to_mm = 0;
};

/// A design whose lengths are multiples of a step.
struct Rounding {
  Design design;
  std::vector<RoundedLength> changes;             ///< those that really changed
  std::size_t lengths = 0;                        ///< that were free to move
  std::size_t conditions = 0;                     ///< sums that were kept
  double greatest_mm = 0, sum_mm = 0;             ///< of the changes
  std::vector<std::pair<std::string, Text>> left; ///< owner and reason: kept as they were
};

/// What is kept besides that the card shuts flat.
enum class RoundingKeeps {
  ShutFlat, ///< nothing
  Motion,   ///< the angles of all folds half-way, and so the way in which everything moves
};

/// Every free length of the card on the multiples of a step, so that what shuts flat shuts flat,
/// twins are twins and what is held stays: with the least greatest change and, among those, the
/// least sum. The conditions are the rings of the shut card (see ringGaps), which are sums of
/// lengths with whole coefficients; lengths that enter a ring otherwise are left as they are. What
/// is glued flush stays flush, and tabs stay inside of what holds them. Held:
/// keys of lengths ("s3.a") or of all of an owner ("s3"). Fails when a key is unknown, when no
/// lattice point keeps the conditions (says which one, and the coarsest finer step on which they
/// can be kept), when the card does not shut flat as it is, or when it was stopped.
Result<Rounding> roundedTo(const Design& design, const Motion& motion, double step_mm,
                           const std::set<std::string>& held, RoundingKeeps keeps,
                           std::chrono::duration<double> most, std::stop_token stop = {},
                           const Progress& progress = {});

} // namespace hinge
