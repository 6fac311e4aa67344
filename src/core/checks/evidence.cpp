// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/evidence.h"
#include <algorithm>

namespace hinge {

Finding findingOn(const CheckInput& in, std::string code, Severity severity,
                  const std::vector<PanelIndex>& panels) {
  Finding f{std::move(code), severity};
  const auto addOnce = [](auto& list, const auto& item) {
    if (std::ranges::find(list, item) == list.end()) list.push_back(item);
  };
  for (PanelIndex p : panels) {
    addOnce(f.elements, in.assembly.panels[p].key);
    if (const auto& owner = in.assembly.panels[p].owner) addOnce(f.owners, *owner);
  }
  f.to_rad = kPi;
  f.show_rad =
      std::clamp(radians(in.design.card.display_deg), in.motion.low_rad(), in.motion.high_rad());
  const Pose pose = in.motion.poseAt(f.show_rad);
  const PanelIndex main = panels.front();
  if (pose.placed[main])
    f.place = pose.panels[main] * lift(boundsOf(in.assembly.panels[main].outline).centre());
  return f;
}

} // namespace hinge
