// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/failing_step.h"
#include <algorithm>
#include <set>

namespace hinge {

std::optional<std::size_t> failingStep(const WorkPlan& plan, const Assembly& assembly,
                                       const Finding& finding) {
  if (finding.severity != Severity::Spoils) return std::nullopt;
  std::set<PieceIndex> about;
  for (const std::string& element : finding.elements)
    if (const PanelIndex panel = assembly.findPanel(element); panel.valid())
      about.insert(assembly.panels[panel].piece);
  if (about.empty())
    for (PieceIndex piece : assembly.pieces.indices())
      if (const auto& owner = assembly.pieces[piece].owner;
          owner && std::ranges::count(finding.owners, *owner) > 0)
        about.insert(piece);
  // The last joint of any of these pieces holds them all.
  std::optional<std::size_t> last;
  for (std::size_t k = 0; k < plan.steps.size(); ++k)
    if (plan.steps[k].kind == WorkKind::Join &&
        std::ranges::any_of(plan.steps[k].joints, [&](JointIndex j) {
          return std::ranges::any_of(panelsOf(assembly.joints[j]), [&](PanelIndex p) {
            return about.contains(assembly.panels[p].piece) &&
                   assembly.panels[p].use != PanelUse::Page;
          });
        }))
      last = k;
  return last;
}

} // namespace hinge
