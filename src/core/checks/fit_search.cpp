// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/fit_search.h"
#include "core/checks/analysis.h"
#include "core/units/lattice.h"
#include <cmath>

namespace hinge {

std::optional<double> nearestFit_mm(const Design& design, std::optional<StructureId> piece,
                                    double wanted_mm, const std::set<std::string>& held,
                                    std::stop_token stop) {
  const auto now = flatLength_mm(design, piece);
  if (!now) return std::nullopt;
  const auto good = [&](double length_mm) {
    if (stop.stop_requested()) return false;
    const auto fitted = fittedTo(design, piece, length_mm, held);
    const auto analysis = fitted ? analyse(fitted->design, stop) : Result<Analysis>(fitted.error());
    return analysis && analysis->verdict != Verdict::Spoiled;
  };
  // Back from what is wanted in even steps to the first that is good, then closer to the last that
  // was not.
  constexpr int kSteps = 12, kHalvings = 6;
  double bad = wanted_mm;
  std::optional<double> best;
  for (int k = 1; k < kSteps && !best; ++k) {
    const double length = wanted_mm + (*now - wanted_mm) * k / kSteps;
    if (good(length))
      best = length;
    else
      bad = length;
  }
  if (!best) return std::nullopt;
  for (int k = 0; k < kHalvings; ++k) {
    const double middle = 0.5 * (*best + bad);
    (good(middle) ? *best : bad) = middle;
  }
  // The next length that a ruler shows, on the good side.
  const double step = latticeStep_mm(design.settings.unit);
  const double ruled =
      bad > *best ? std::floor(*best / step) * step : std::ceil(*best / step) * step;
  return good(ruled) ? ruled : *best;
}

} // namespace hinge
