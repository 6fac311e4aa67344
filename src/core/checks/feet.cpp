// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/making/patches.h"
#include <algorithm>

// Feet are free: nothing flat is glued over the line from which a wall stands up. What is to lie
// under a foot must have the wall glued onto it instead.

namespace hinge {
namespace {

/// One finding for each piece over each wall, however many parts of its foot are covered.
std::vector<Finding> checkFeet(const CheckInput& in) {
  const Patches patches(in.assembly, in.motion.mechanism());
  const double show = 0.5 * (in.motion.low_rad() + in.motion.high_rad());
  std::vector<Finding> found;
  std::vector<std::pair<PanelIndex, PanelIndex>> known;
  for (const CoveredFoot& c : patches.coveredFeet()) {
    const Foot& foot = patches.feet()[c.foot];
    const Patch &down = patches.all()[foot.patch], &over = patches.all()[c.by];
    const std::pair pair{over.other, foot.wall};
    // A page is what things are glued to: that it "lies over" something only tells how glue is
    // torn.
    if (in.assembly.panels[over.other].use == PanelUse::Page) continue;
    const auto before = std::ranges::find(known, pair);
    if (before != known.end()) {
      found[static_cast<std::size_t>(before - known.begin())].amount += c.length_mm;
      continue;
    }
    const Panel &lying = in.assembly.panels[over.other], &wall = in.assembly.panels[foot.wall];
    Finding f{"foot-covered", Severity::Spoils, {lying.key, wall.key}};
    for (const auto& owner : {lying.owner, wall.owner})
      if (owner && std::ranges::find(f.owners, *owner) == f.owners.end())
        f.owners.push_back(*owner);
    f.amount = c.length_mm, f.to_rad = kPi, f.show_rad = show;
    const Pose pose = in.motion.poseAt(show);
    if (pose.placed[down.panel])
      f.place = pose.panels[down.panel] * lift(Vec2(0.5 * (foot.from + foot.to)));
    known.push_back(pair);
    found.push_back(std::move(f));
  }
  return found;
}

} // namespace

const CheckKind& feetCheck() {
  static const CheckKind kind{"feet", checkFeet};
  return kind;
}

} // namespace hinge
