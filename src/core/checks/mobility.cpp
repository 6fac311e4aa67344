// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/edits/rejoining.h"
#include <algorithm>
#include <iterator>

// Guided or floppy: with the opening fixed nothing may be free to move. The count is the rank of
// the closure's Jacobian.

namespace hinge {
namespace {

/// What could drive the folds of a free piece that flops; of many only the first are tried.
void proposeDrives(const CheckInput& in, Finding& finding) {
  constexpr std::size_t kMostFolds = 6;
  std::size_t folds = 0;
  for (const Fold& fold : in.assembly.folds) {
    const auto loose = [&](PanelIndex p) {
      return std::ranges::find(finding.elements, in.assembly.panels[p].key) !=
             finding.elements.end();
    };
    const auto owner = in.assembly.panels[fold.left].owner;
    const StructureItem* item = owner ? in.design.find(*owner) : nullptr;
    if (!item || (!loose(fold.left) && !loose(fold.right)) || folds == kMostFolds) continue;
    auto mends = drivenOtherwise(in.design, *item, fold);
    if (!mends.empty()) ++folds;
    std::ranges::move(mends, std::back_inserter(finding.proposed));
  }
}

/// Loose blocks of the same structures are one trouble, whose motions are counted together.
std::vector<Finding> checkMobility(const CheckInput& in) {
  std::vector<Finding> found;
  const auto& blocks = in.motion.blocks();
  for (std::size_t b = 0; b < blocks.size(); ++b) {
    if (blocks[b].freedoms == 0) continue;
    auto it = std::ranges::find(found, blocks[b].owners, &Finding::owners);
    if (it == found.end()) {
      found.push_back({"floppy", Severity::Spoils, {}, blocks[b].owners});
      it = found.end() - 1;
      it->unit = AmountUnit::Count;
      it->to_rad = kPi, it->show_rad = 0.5 * kPi;
    }
    it->amount += blocks[b].freedoms;
    // What hangs on the loose part sways with it.
    for (const auto& block : blocks)
      if (&block == &blocks[b] || block.looseBy == static_cast<int>(b))
        for (PanelIndex p : block.panels) {
          const std::string& key = in.assembly.panels[p].key;
          const bool known = std::ranges::find(it->elements, key) != it->elements.end();
          if (in.assembly.panels[p].use != PanelUse::Tab && !known) it->elements.push_back(key);
        }
  }
  for (Finding& finding : found)
    proposeDrives(in, finding);
  return found;
}

} // namespace

const CheckKind& mobilityCheck() {
  static const CheckKind kind{"floppy", checkMobility};
  return kind;
}

} // namespace hinge
