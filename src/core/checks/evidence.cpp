// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/evidence.h"
#include <algorithm>

namespace hinge {

Finding findingOn(const CheckInput& in, std::string code, Severity severity,
                  const std::vector<PanelIndex>& panels) {
  Finding f{std::move(code), severity};
  for (PanelIndex p : panels)
    addPanel(in, p, f);
  f.to_rad = kPi;
  f.show_rad =
      std::clamp(radians(in.design.card.display_deg), in.motion.low_rad(), in.motion.high_rad());
  const Pose pose = in.motion.poseAt(f.show_rad);
  const PanelIndex main = panels.front();
  if (pose.placed[main])
    f.place = pose.panels[main] * lift(boundsOf(in.assembly.panels[main].outline).centre());
  return f;
}

void addPanel(const CheckInput& in, PanelIndex panel, Finding& finding) {
  const auto addOnce = [](auto& list, const auto& item) {
    if (std::ranges::find(list, item) == list.end()) list.push_back(item);
  };
  const Panel& p = in.assembly.panels[panel];
  addOnce(finding.elements, p.key);
  if (p.owner) addOnce(finding.owners, *p.owner);
}

} // namespace hinge
