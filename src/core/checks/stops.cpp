// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include <algorithm>
#include <cmath>

// Stops: a slide runs no farther than its stops, or than the pocket that holds it.

namespace hinge {
namespace {

std::vector<Finding> checkStops(const CheckInput& in) {
  std::vector<Finding> found;
  constexpr int kSteps = 180;
  for (const auto& [j, h] : in.assembly.every<Slide>()) {
    if (h.least_mm == h.most_mm) continue;     // no stops
    if (in.motion.isLoose(h.second)) continue; // where it lies is not decided
    Finding f{"slide-past-stop",
              Severity::Spoils,
              {in.assembly.panels[h.second].key, in.assembly.panels[h.first].key}};
    if (h.owner) f.owners.push_back(*h.owner);
    for (int k = 0; k <= kSteps; ++k) {
      const double t =
          in.assembly.low_rad + (in.assembly.high_rad - in.assembly.low_rad) * k / kSteps;
      const Pose pose = t > 0 ? in.motion.poseAt(t) : in.motion.shutPose();
      if (!pose.placed[h.first] || !pose.placed[h.second]) continue;
      const Iso3 between =
          inverseOf(pose.panels[h.first] * h.onFirst) * pose.panels[h.second] * h.onSecond;
      const double at = between.translation().y(), past = std::max(h.least_mm - at, at - h.most_mm);
      if (past <= 1e-6) continue;
      if (f.amount == 0) f.from_rad = t;
      f.to_rad = t;
      if (past > f.amount)
        f.amount = past, f.show_rad = t,
        f.place = (pose.panels[h.second] * h.onSecond).translation(),
        f.detail = at < h.least_mm ? "least" : "most";
    }
    if (f.amount > 0) found.push_back(std::move(f));
  }
  return found;
}

} // namespace

const CheckKind& stopsCheck() {
  static const CheckKind kind{"stops", checkStops};
  return kind;
}

} // namespace hinge
