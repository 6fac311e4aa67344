// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/unsolved.h"
#include <algorithm>

namespace hinge {
namespace {

/// Pins have play, and slides what pockets and straps leave them.
double playOf_mm(const Assembly& assembly, const Pair& pair) {
  if (!pair.joint.valid() || !pair.restsAnywhere) return 0;
  if (!pair.slides) return assembly.pinPlay_mm;
  const Slide& slide = std::get<Slide>(assembly.joints[pair.joint]);
  return slide.guided_mm > 0 ? slide.room_mm : assembly.slidePlay_mm;
}

/// A slide keeps to its line and does not turn; along the line it stands anywhere.
double offLine_mm(const Pair& pair, const Iso3& left, const Iso3& right) {
  const Iso3 off = inverseOf(left) * right * pair.homeInverse;
  const Vec3 beside = pair.leftFrom - off * pair.leftFrom;
  const double aside = (beside - beside.dot(pair.leftAxis) * pair.leftAxis).norm();
  const double arm = (pair.leftTo - pair.leftFrom).norm(); // what a turn weighs
  return aside + arm * (off.linear() - Eigen::Matrix3d::Identity()).colwise().norm().maxCoeff();
}

} // namespace

std::vector<PairIndex> unsolvedPairs(const Motion& motion) {
  const Mechanism& m = motion.mechanism();
  IndexedVector<PairIndex, char> solved;
  solved.assign(m.pairs.size(), 0);
  for (const Block& block : motion.parts()) {
    for (const Block::Step& step : block.steps)
      solved[step.pair] = 1;
    for (PairIndex closing : block.closing)
      solved[closing] = 1;
  }
  std::vector<PairIndex> left;
  for (PairIndex pair : m.pairs.indices())
    if (!solved[pair]) left.push_back(pair);
  return left;
}

std::array<PanelIndex, 2> panelsOf(const Assembly& assembly, const Pair& pair) {
  if (pair.joint.valid()) return panelsOf(assembly.joints[pair.joint]);
  return {assembly.folds[pair.fold].left, assembly.folds[pair.fold].right};
}

std::optional<double> gapOf(const Motion& motion, const Pair& pair, const Pose& pose, Vec3* place) {
  const Assembly& assembly = motion.assembly();
  const Mechanism& m = motion.mechanism();
  const auto [first, second] = panelsOf(assembly, pair);
  if (!pose.placed[first] || !pose.placed[second]) return std::nullopt;
  if (motion.isLoose(first) || motion.isLoose(second)) return std::nullopt;
  const auto bodyAt = [&](PanelIndex p) { return pose.panels[p] * inverseOf(m.inBody[p]); };
  const Iso3 left = bodyAt(first), right = bodyAt(second);
  const Vec3 from = left * pair.leftFrom - right * pair.rightFrom,
             to = left * pair.leftTo - right * pair.rightTo;
  if (place) *place = right * (from.norm() > to.norm() ? pair.rightFrom : pair.rightTo);
  const double gap = pair.slides ? offLine_mm(pair, left, right) : std::max(from.norm(), to.norm());
  return std::max(0.0, gap - playOf_mm(assembly, pair));
}

} // namespace hinge
