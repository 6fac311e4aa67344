// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include <algorithm>

// Lies flat in an order: there must be a stacking of all panels in the shut card in which none
// passes through a fold. Panels that overlap in a ring can be tucked under one another by hand, but
// the card does not shut so by itself.

namespace hinge {
namespace {

void addOwners(const CheckInput& in, PanelIndex panel, Finding& f) {
  f.elements.push_back(in.assembly.panels[panel].key);
  const auto& owner = in.assembly.panels[panel].owner;
  if (owner && std::ranges::find(f.owners, *owner) == f.owners.end()) f.owners.push_back(*owner);
}

std::vector<Finding> checkStacking(const CheckInput& in) {
  std::vector<Finding> found;
  if (!in.motion.shuts()) return found;
  // Panels that pass through one another on the way have no order to come to rest in.
  if (!in.of(panelsHitCheck()).empty()) return found;
  const auto sheets = in.inPlane();
  if (!sheets || !sheets->hits.empty()) return found;
  const auto known = in.stack();
  if (!known) return found; // stopped
  const Stacking& stack = *known;
  if (!stack.ring.empty()) {
    Finding f{"stack-ring", Severity::Advice};
    for (PanelIndex p : stack.ring)
      addOwners(in, p, f);
    f.amount = static_cast<double>(stack.ring.size()), f.unit = AmountUnit::Count;
    f.show_rad = radians(5);
    found.push_back(std::move(f));
  }
  for (const Stacking::Through& t : stack.through) {
    Finding f{"stack-through", Severity::Spoils};
    addOwners(in, t.panel, f);
    addOwners(in, in.assembly.folds[t.fold].left, f);
    f.detail = in.assembly.folds[t.fold].label;
    f.amount = 1, f.unit = AmountUnit::Count;
    f.place = t.place, f.show_rad = radians(5);
    found.push_back(std::move(f));
    if (found.size() > 8) break; // the rest is the same trouble
  }
  return found;
}

} // namespace

const CheckKind& stackingCheck() {
  static const CheckKind kind{"stacking", checkStacking};
  return kind;
}

} // namespace hinge
