// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/evidence.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

// Room at folds: what is laid on two leaves that close on one another needs as much room beside
// their fold as it is thick. A fold gives that where the layers end far enough from it: the paper
// bends round them. Board up to the fold holds the card open.

namespace hinge {
namespace {

constexpr double kFelt_mm = 0.2; ///< less than this no hand feels

/// Something laid on a leaf inside a fold.
struct Laid {
  double near_mm; ///< from the fold
  double high_mm; ///< of itself
};

/// What is laid on the inside of a leaf and comes beside the fold, nearest first.
std::vector<Laid> besideFold(const std::vector<LaidOn>& all, const Fold& fold, PanelIndex leaf,
                             bool onBack) {
  const Vec2 along = (fold.to - fold.from).normalized(), across(-along.y(), along.x());
  std::vector<Laid> beside;
  for (const LaidOn& on : all) {
    if (on.panel != leaf || on.onBack != onBack) continue;
    double near = 1e300;
    for (const Polygon& part : convexParts(on.onPiece))
      for (const Vec2& p :
           clipToHalfPlane(clipToHalfPlane(part, fold.from, along), fold.to, -along))
        near = std::min(near, std::abs(across.dot(p - fold.from)));
    if (near < 1e300) beside.push_back({near, on.thickness_mm});
  }
  std::ranges::sort(beside, {}, &Laid::near_mm);
  return beside;
}

/// How much room lacks where it is worst.
double lack_mm(const std::vector<Laid>& one, const std::vector<Laid>& other) {
  const auto high = [](const std::vector<Laid>& side, double near_mm) {
    double sum = 0;
    for (const Laid& laid : side)
      if (laid.near_mm <= near_mm + 1e-9) sum += laid.high_mm;
    return sum;
  };
  double worst = 0;
  for (const auto* side : {&one, &other})
    for (const Laid& laid : *side)
      worst = std::max(worst,
                       0.5 * (high(one, laid.near_mm) + high(other, laid.near_mm)) - laid.near_mm);
  return worst;
}

std::vector<Finding> checkLayersAtFolds(const CheckInput& in) {
  std::vector<Finding> found;
  if (!in.motion.shuts()) return found;
  const auto laid = in.snapshot.laid(in.stop);
  if (!laid || laid->empty()) return found;
  for (FoldIndex f : in.assembly.folds.indices()) {
    const Fold& fold = in.assembly.folds[f];
    const double shut = in.motion.shutAngle(f);
    if (std::abs(shut) < 0.5 * kPi) continue; // stays open
    const bool insideIsBack = shut < 0;
    const double lack = lack_mm(besideFold(*laid, fold, fold.left, insideIsBack),
                                besideFold(*laid, fold, fold.right, insideIsBack));
    if (lack <= kFelt_mm) continue;
    Finding finding =
        findingOn(in, "layers-at-fold", lack > kPaperGives_mm ? Severity::Spoils : Severity::Advice,
                  {fold.left, fold.right});
    finding.amount = lack, finding.detail = fold.label;
    finding.to_rad = 0, finding.show_rad = in.motion.low_rad();
    found.push_back(std::move(finding));
  }
  return found;
}

} // namespace

const CheckKind& layersAtFoldsCheck() {
  static const CheckKind kind{"layers-at-folds", checkLayersAtFolds};
  return kind;
}

} // namespace hinge
