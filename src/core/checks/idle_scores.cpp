// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/evidence.h"
#include "core/edits/rejoining.h"

// A score that ends in the paper folds nothing: its maker is not done with it, or drew it too
// short. It stays in the design until it is drawn on, crossed by a cut or erased.

namespace hinge {
namespace {

std::vector<Finding> checkIdleScores(const CheckInput& in) {
  std::vector<Finding> found;
  for (const Piece& piece : in.assembly.pieces)
    for (const Feature& feature : piece.features) {
      const IdleScore* score = std::get_if<IdleScore>(&feature);
      if (!score || !score->panel.valid()) continue;
      Finding f = findingOn(in, "score-ends", score->folds ? Severity::Advice : Severity::Spoils,
                            {score->panel});
      f.amount = (score->to - score->from).norm();
      f.detail = Text("score", score->line);
      const auto owner = in.assembly.panels[score->panel].owner;
      const StructureItem* item = owner ? in.design.find(*owner) : nullptr;
      if (item && item->work) f.proposed = finished(in.design, *item, score->line);
      found.push_back(std::move(f));
    }
  return found;
}

} // namespace

const CheckKind& idleScoresCheck() {
  static const CheckKind kind{"score-ends", checkIdleScores};
  return kind;
}

} // namespace hinge
