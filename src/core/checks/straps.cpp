#include "core/checks/check.h"
#include "core/structures/wrap.h"
#include <algorithm>

// Straps: one that is folded round layers of paper is long enough for its way round all of them.

namespace hinge {
namespace {

std::vector<Finding> run(const CheckInput& in) {
  std::vector<Finding> found;
  for (const Wrap& wrap : wrapsOf(in.assembly, in.design.stock.thickness_mm)) {
    if (wrap.inside_mm >= wrap.needed_mm - 1e-6) continue;
    Finding f{"strap-tight", Severity::Spoils, {in.assembly.panels[wrap.panel].key, in.assembly.panels[wrap.carrier].key}};
    for (PanelIndex p : {wrap.panel, wrap.carrier})
      if (const auto& owner = in.assembly.panels[p].owner; owner && std::ranges::find(f.owners, *owner) == f.owners.end()) f.owners.push_back(*owner);
    f.amount = wrap.needed_mm - wrap.inside_mm, f.to_rad = kPi, f.detail = std::to_string(wrap.layers);
    f.show_rad = std::clamp(radians(in.design.card.display_deg), in.motion.low_rad(), in.motion.high_rad());
    const Pose pose = in.motion.poseAt(f.show_rad);
    if (pose.placed[wrap.panel]) f.place = pose.panels[wrap.panel] * lift(boundsOf(in.assembly.panels[wrap.panel].outline).centre());
    found.push_back(std::move(f));
  }
  return found;
}

} // namespace

const CheckKind& strapsCheck() {
  static const CheckKind kind{"straps", "Straps go round", "A strap is long enough for its way round everything inside it", run};
  return kind;
}

} // namespace hinge
