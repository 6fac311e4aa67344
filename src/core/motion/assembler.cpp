// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/assembler.h"
#include "core/motion/corrector.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <deque>
#include <optional>
#include <random>

namespace hinge {
namespace {

/// +1 valley, -1 mountain, 0 either: slots, pivots, slides.
int signOf(const Mechanism& m, const Assembly& assembly, PairIndex j, bool tabsToo) {
  const Pair& pair = m.pairs[j];
  if (!pair.fold.valid()) return 0;
  const Fold& fold = assembly.folds[pair.fold];
  const auto tab = [&](PanelIndex p) { return assembly.panels[p].use == PanelUse::Tab; };
  if (!tabsToo && (tab(fold.left) || tab(fold.right))) return 0;
  return fold.sense == FoldSense::Valley ? 1 : -1;
}

/// The tree of all loose bodies; empty when one is not reached.
PairTree treeOfAll(const Mechanism& m, const std::vector<BodyIndex>& loose,
                   const std::vector<char>& placed) {
  std::vector<char> want(m.bodies.size(), 0);
  for (BodyIndex b : loose)
    want[static_cast<std::size_t>(b.value)] = 1;
  PairTree tree = treeOver(m, want, placed);
  if (tree.size() != loose.size()) tree.clear();
  return tree;
}

} // namespace

namespace {

constexpr int kSeed = 20260;
constexpr double kFlattest_rad = 0.1, kSharpest_rad = 2.9, kWrongSide_rad = 1e-3;
constexpr int kTriesBesideNear = 4; ///< when the poses of a neighbouring design do not lead there

/// Closes the rings of one block from different starts until all folds lie to their sides.
class Attempts {
public:
  Attempts(const Mechanism& mechanism, const Assembly& assembly, const Block& block,
           const BodyPoses& poses)
      : m(mechanism), m_assembly(assembly), m_block(block), m_known(poses) {}

  /// True when nothing better can come.
  bool from(Eigen::VectorXd x, bool tabsToo) {
    BodyPoses trial = m_known;
    const double gap = correct(m, m_block, x, trial).residual_mm;
    if (gap < m_nearest) m_nearest = gap, m_nearestPoses = trial;
    // Angles may have gone round; what counts is where the panels are.
    if (!(gap < std::min(m_least, m_assembly.closureLimit_mm)) || !fits(trial, tabsToo))
      return false;
    m_best = std::move(trial), m_least = gap;
    return gap < motion::kClosed_mm;
  }
  /// The one that closes best, if it closes but for what no paper knows.
  const std::optional<BodyPoses>& best() const {
    static const std::optional<BodyPoses> none;
    return m_least < motion::kAskew_mm ? m_best : none;
  }
  /// The same when paper gives what is left.
  const std::optional<BodyPoses>& forgiven() const { return m_best; }
  /// Where the gap was least, whatever side the folds are on.
  const std::optional<BodyPoses>& nearest() const { return m_nearestPoses; }

  Eigen::VectorXd anglesOf(const BodyPoses& near) const {
    Eigen::VectorXd x(static_cast<Eigen::Index>(m_block.steps.size()));
    for (std::size_t s = 0; s < m_block.steps.size(); ++s) {
      const Pair& pair = m.pairs[m_block.steps[s].pair];
      x[static_cast<Eigen::Index>(s)] = m.foldAngle(pair, near[pair.left], near[pair.right]);
    }
    return x;
  }
  /// As the maker folded the piece, where that is known; random elsewhere. Nothing when it is known
  /// of no fold.
  std::optional<Eigen::VectorXd> asFolded() {
    const auto start = [&](const Block::Step& step) {
      const FoldIndex f = m.pairs[step.pair].fold;
      return f.valid() ? m_assembly.folds[f].start_rad : std::nullopt;
    };
    if (std::ranges::none_of(m_block.steps, [&](const auto& s) { return start(s).has_value(); }))
      return std::nullopt;
    Eigen::VectorXd x = random(0, true);
    for (std::size_t s = 0; s < m_block.steps.size(); ++s)
      if (const auto angle = start(m_block.steps[s])) x[static_cast<Eigen::Index>(s)] = *angle;
    return x;
  }
  /// Random angles to the sides of the folds. A pivot or slide first tries to lie as its joint
  /// says, then ever farther from it (`wander`, 0 to 1).
  Eigen::VectorXd random(double wander, bool tabsToo) {
    std::uniform_real_distribution<double> bend(kFlattest_rad, kSharpest_rad), any(-0.5, 0.5);
    std::bernoulli_distribution up;
    Eigen::VectorXd x(static_cast<Eigen::Index>(m_block.steps.size()));
    for (std::size_t s = 0; s < m_block.steps.size(); ++s) {
      const PairIndex j = m_block.steps[s].pair;
      const Pair& pair = m.pairs[j];
      const int sign = signOf(m, m_assembly, j, tabsToo);
      double& angle = x[static_cast<Eigen::Index>(s)];
      if (pair.restsAnywhere)
        angle = 2 * wander * any(m_random) * (pair.slides ? 1 : kPi);
      else
        angle = sign != 0 ? sign * bend(m_random) : (up(m_random) ? 1 : -1) * bend(m_random);
    }
    return x;
  }

private:
  bool fits(const BodyPoses& solved, bool tabsToo) const {
    const auto right = [&](PairIndex j) {
      const int sign = signOf(m, m_assembly, j, tabsToo);
      if (sign == 0) return true;
      const Pair& pair = m.pairs[j];
      return sign * m.foldAngle(pair, solved[pair.left], solved[pair.right]) > -kWrongSide_rad;
    };
    return std::ranges::all_of(m_block.steps,
                               [&](const Block::Step& s) { return right(s.pair); }) &&
           std::ranges::all_of(m_block.closing, right);
  }

  const Mechanism& m;
  const Assembly& m_assembly;
  const Block& m_block;
  const BodyPoses& m_known;
  std::mt19937 m_random{kSeed};
  std::optional<BodyPoses> m_best, m_nearestPoses;
  double m_least = 1e300, m_nearest = 1e300;
};

} // namespace

std::optional<int> putTogether(const Mechanism& m, const Assembly& assembly,
                               const std::vector<BodyIndex>& loose, const std::vector<char>& placed,
                               BodyPoses& poses, int tries, const BodyPoses* near) {
  if (loose.empty()) return 0;
  const PairTree tree = treeOfAll(m, loose, placed);
  if (tree.empty()) return std::nullopt;
  const Block block = blockFromTree(m, assembly, tree, placed);
  Attempts attempts(m, assembly, block, poses);
  const auto found = [&] {
    poses = *attempts.forgiven();
    return freedomsAt(m, block, poses);
  };
  if (near && (attempts.from(attempts.anglesOf(*near), true) || attempts.best())) return found();
  if (const auto start = attempts.asFolded())
    if (attempts.from(*start, true) || attempts.best()) return found();
  const int most = near ? std::min(tries, kTriesBesideNear) : tries;
  for (bool tabsToo : {true, false}) {
    for (int k = 0; k < most; ++k)
      if (attempts.from(attempts.random(static_cast<double>(k) / tries, tabsToo), tabsToo)) break;
    if (attempts.best()) return found();
  }
  if (attempts.forgiven()) return found();
  return std::nullopt;
}

std::optional<Miss> nearestMiss(const Mechanism& m, const Assembly& assembly,
                                const std::vector<BodyIndex>& loose,
                                const std::vector<char>& placed, const BodyPoses& poses,
                                int tries) {
  const PairTree tree = loose.empty() ? PairTree() : treeOfAll(m, loose, placed);
  if (tree.empty()) return std::nullopt;
  const Block block = blockFromTree(m, assembly, tree, placed);
  if (block.closing.empty()) return std::nullopt;
  Attempts attempts(m, assembly, block, poses);
  for (int k = 0; k < tries; ++k)
    attempts.from(attempts.random(static_cast<double>(k) / tries, true), true);
  if (!attempts.nearest()) return std::nullopt;
  Eigen::VectorXd gaps;
  closureResidual(m, block, *attempts.nearest(), gaps);
  Miss miss;
  for (std::size_t c = 0; c < block.closing.size(); ++c)
    for (Eigen::Index end : {0, 3}) {
      const double gap = gaps.segment<3>(static_cast<Eigen::Index>(6 * c) + end).norm();
      if (gap < miss.gap_mm) continue;
      const Pair& pair = m.pairs[block.closing[c]];
      miss = {gap, pair.fold, pair.joint};
    }
  return miss;
}

} // namespace hinge
