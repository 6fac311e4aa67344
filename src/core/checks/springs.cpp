// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/evidence.h"
#include <algorithm>

// Springs: what is moved only by the spring of its folds stands where it is shown as long as these
// are bent alike, a small card opens with the large one as its band pulls, and a leaf of a free
// piece as its maker says. That is told; rigid paper would not move it.

namespace hinge {
namespace {

std::vector<Finding> checkSprings(const CheckInput& in) {
  std::vector<Finding> found;
  for (const Drive& drive : in.assembly.drives) {
    const Fold& fold = in.assembly.folds[drive.fold];
    const bool leftMoves = !in.assembly.panels[fold.left].gluedBy.valid();
    const Panel& panel = in.assembly.panels[leftMoves ? fold.left : fold.right];
    if (!panel.owner) continue; // the hand moves the base
    if (std::ranges::any_of(found, [&](const Finding& f) { return f.owners[0] == *panel.owner; }))
      continue;
    const StructureItem& by = *in.design.find(*panel.owner);
    const char* code = by.card ? "by-band" : by.work ? "by-hand-along" : "by-spring";
    Finding f{code, Severity::Advice, {panel.key}, {*panel.owner}};
    f.amount = 1, f.unit = AmountUnit::Count;
    f.from_rad = in.motion.low_rad(), f.to_rad = in.motion.high_rad();
    f.show_rad = 0.5 * (f.from_rad + f.to_rad);
    found.push_back(std::move(f));
  }
  return found;
}

} // namespace

const CheckKind& springsCheck() {
  static const CheckKind kind{"springs", checkSprings};
  return kind;
}

} // namespace hinge
