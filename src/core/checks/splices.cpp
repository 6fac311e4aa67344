// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/checks/evidence.h"
#include "core/pieces/splicing.h"

// Splices: where a long piece is parted there is still one panel, off its folds and openings.

namespace hinge {
namespace {

std::vector<Finding> checkSplices(const CheckInput& in) {
  std::vector<Finding> found;
  for (const Splice& splice : in.design.splices) {
    const auto laid = laidSplice(in.assembly, splice);
    if (laid) continue;
    const PanelIndex panel = in.assembly.findPanel(splice.panel);
    Finding f =
        findingOn(in, "splice-lost", Severity::Advice, {panel.valid() ? panel : in.assembly.root});
    if (!panel.valid()) f.elements = {"card"};
    f.detail = laid.error().message;
    f.amount = 1, f.unit = AmountUnit::Count;
    found.push_back(std::move(f));
  }
  return found;
}

} // namespace

const CheckKind& splicesCheck() {
  static const CheckKind kind{"splices", checkSplices};
  return kind;
}

} // namespace hinge
