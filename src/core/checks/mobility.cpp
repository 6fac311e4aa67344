#include "core/checks/check.h"

// Guided or floppy: with the opening fixed nothing may be free to move. The count is the rank of the closure's Jacobian.

namespace hinge {
namespace {

std::vector<Finding> run(const CheckInput& in) {
  std::vector<Finding> found;
  const auto& blocks = in.motion.blocks();
  for (std::size_t b = 0; b < blocks.size(); ++b) {
    if (blocks[b].freedoms == 0) continue;
    Finding f{"floppy", Severity::Spoils, {}, blocks[b].owners};
    // What hangs on the loose part sways with it.
    for (const auto& block : blocks)
      if (&block == &blocks[b] || block.looseBy == static_cast<int>(b))
        for (PanelIndex p : block.panels)
          if (in.assembly.panels[p].use != PanelUse::Tab) f.elements.push_back(in.assembly.panels[p].key);
    f.amount = blocks[b].freedoms, f.unit = AmountUnit::Count;
    f.to_rad = kPi, f.show_rad = 0.5 * kPi;
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
