#include "core/checks/check.h"

// Guided or floppy: with the opening fixed nothing may be free to move. The count is the rank of the closure's Jacobian.

namespace hinge {
namespace {

std::vector<Finding> run(const CheckInput& in) {
  std::vector<Finding> found;
  for (const auto& block : in.motion.blocks()) {
    if (block.freedoms == 0) continue;
    Finding f{"floppy", Severity::Spoils, {}, block.owners};
    for (PanelIndex p : block.panels)
      if (in.assembly.panels[p].use != PanelUse::Tab) f.elements.push_back(in.assembly.panels[p].key);
    f.to_rad = kPi, f.show_rad = 0.5 * kPi;
    f.amount = block.freedoms, f.unit = AmountUnit::Count;
    found.push_back(std::move(f));
  }
  return found;
}

} // namespace

const CheckKind& mobilityCheck() {
  static const CheckKind kind{"floppy", "Guided", "Nothing flops: the opening alone decides where every panel is", run};
  return kind;
}

} // namespace hinge
