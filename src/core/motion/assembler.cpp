#include "core/motion/assembler.h"
#include "core/motion/corrector.h"
#include "core/motion/tolerances.h"
#include <algorithm>
#include <cmath>
#include <deque>
#include <optional>
#include <random>

namespace hinge {
namespace {

/// +1 valley, -1 mountain, 0 either: slots, pivots, slides.
int signOf(const Mechanism& m, const Assembly& assembly, JointIndex j, bool tabsToo) {
  const Joint& joint = m.joints[j];
  if (!joint.fold.valid()) return 0;
  const Fold& fold = assembly.folds[joint.fold];
  const auto tab = [&](PanelIndex p) { return assembly.panels[p].use == PanelUse::Tab; };
  if (!tabsToo && (tab(fold.left) || tab(fold.right))) return 0;
  return fold.sense == FoldSense::Valley ? 1 : -1;
}

/// Breadth first from what is known; empty when a body is not reached.
JointTree treeOver(const Mechanism& m, const std::vector<BodyIndex>& loose, const std::vector<char>& placed) {
  std::vector<char> want(m.bodies.size(), 0), have = placed;
  for (BodyIndex b : loose) want[static_cast<std::size_t>(b.value)] = 1;
  JointTree tree;
  std::deque<BodyIndex> open;
  for (BodyIndex b : m.bodies.indices())
    if (placed[static_cast<std::size_t>(b.value)]) open.push_back(b);
  while (!open.empty()) {
    const BodyIndex b = open.front();
    open.pop_front();
    for (JointIndex j : m.bodies[b].joints) {
      const BodyIndex next = m.joints[j].other(b);
      const auto at = static_cast<std::size_t>(next.value);
      if (have[at] || !want[at]) continue;
      have[at] = 1;
      tree.push_back({next, j});
      open.push_back(next);
    }
  }
  if (tree.size() != loose.size()) tree.clear();
  return tree;
}

} // namespace

std::optional<int> putTogether(const Mechanism& m, const Assembly& assembly, const std::vector<BodyIndex>& loose, const std::vector<char>& placed, BodyPoses& poses, int tries) {
  if (loose.empty()) return 0;
  const JointTree tree = treeOver(m, loose, placed);
  if (tree.empty()) return std::nullopt;
  const Block block = blockFromTree(m, assembly, tree, placed);
  constexpr int kSeed = 20260;
  constexpr double kFlattest_rad = 0.1, kSharpest_rad = 2.9, kWrongSide_rad = 1e-3;
  std::mt19937 random(kSeed);
  std::uniform_real_distribution<double> bend(kFlattest_rad, kSharpest_rad), any(-0.5, 0.5);
  std::bernoulli_distribution up;
  const auto fits = [&](const BodyPoses& solved, bool tabsToo) {
    const auto right = [&](JointIndex j) {
      const int sign = signOf(m, assembly, j, tabsToo);
      return sign == 0 || sign * m.foldAngle(m.joints[j], solved[m.joints[j].left], solved[m.joints[j].right]) > -kWrongSide_rad;
    };
    return std::ranges::all_of(block.steps, [&](const Block::Step& s) { return right(s.joint); }) && std::ranges::all_of(block.closing, right);
  };
  for (bool tabsToo : {true, false}) {
    std::optional<BodyPoses> best;
    double least = 1e300;
    for (int k = 0; k < tries; ++k) {
      Eigen::VectorXd x(static_cast<Eigen::Index>(block.steps.size()));
      for (std::size_t s = 0; s < block.steps.size(); ++s) {
        const JointIndex j = block.steps[s].joint;
        const int sign = signOf(m, assembly, j, tabsToo);
        // A pivot or slide first tries to lie as its joint says, then ever farther from it.
        const double wander = static_cast<double>(k) / tries;
        if (m.joints[j].hinge.valid() && assembly.hinges[m.joints[j].hinge].kind != HingeKind::Slot) x[static_cast<Eigen::Index>(s)] = 2 * wander * any(random) * (m.joints[j].slides ? 1 : kPi);
        else x[static_cast<Eigen::Index>(s)] = sign != 0 ? sign * bend(random) : (up(random) ? 1 : -1) * bend(random);
      }
      BodyPoses trial = poses;
      const double gap = correct(m, block, x, trial).residual_mm;
      // Angles may have gone round; what counts is where the panels are.
      if (!(gap < std::min(least, motion::kAskew_mm)) || !fits(trial, tabsToo)) continue;
      best = std::move(trial), least = gap;
      if (gap < motion::kClosed_mm) break;
    }
    if (!best) continue;
    poses = std::move(*best);
    return freedomsAt(m, block, poses);
  }
  return std::nullopt;
}

} // namespace hinge
