// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/ties.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <optional>

namespace hinge {
namespace {

std::optional<double> apart(const Tie& tie, const Motion& motion, double t) {
  const Pose pose = t > 0 ? motion.poseAt(t) : motion.shutPose();
  if (!pose.placed[tie.panels[0]] || !pose.placed[tie.panels[1]]) return std::nullopt;
  return (pose.panels[tie.panels[0]] * lift(tie.at[0]) -
          pose.panels[tie.panels[1]] * lift(tie.at[1]))
      .norm();
}

} // namespace

TieTravel travelOf(const Tie& tie, const Motion& motion, double shown_rad) {
  TieTravel travel;
  constexpr int kSteps = 180;
  const auto passes =
      [&](double inside,
          double outside) { // between an opening where it is taut and one where it is not
        while (std::abs(outside - inside) > kCheckFinest_rad) {
          const double middle = 0.5 * (inside + outside);
          const auto d = apart(tie, motion, middle);
          (d && *d > tie.length_mm ? inside : outside) = middle;
        }
        return inside;
      };
  bool tautBefore = false;
  double before = 0;
  for (int k = 0; k <= kSteps; ++k) {
    const double low = motion.assembly().low_rad, high = motion.assembly().high_rad;
    const double t = low + (high - low) * k / kSteps;
    const auto d = apart(tie, motion, t);
    if (!d) continue;
    const bool taut = *d > tie.length_mm;
    if (!travel.known)
      travel.shortest_mm = travel.longest_mm = *d, travel.longest_rad = t, travel.shut_mm = *d;
    if (taut && !tautBefore && travel.tautTo_rad == 0)
      travel.tautFrom_rad = travel.known ? passes(t, before) : t;
    if (taut) travel.tautTo_rad = t;
    if (!taut && tautBefore) travel.tautTo_rad = passes(before, t);
    travel.known = true;
    travel.shortest_mm = std::min(travel.shortest_mm, *d);
    if (*d > travel.longest_mm) travel.longest_mm = *d, travel.longest_rad = t;
    tautBefore = taut, before = t;
  }
  travel.shown_rad = std::clamp(shown_rad, motion.low_rad(), motion.high_rad());
  if (const auto d = apart(tie, motion, travel.shown_rad)) travel.shown_mm = *d;
  return travel;
}

} // namespace hinge
