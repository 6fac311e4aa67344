// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/corrector.h"
#include "core/motion/motion.h"
#include "core/motion/nodes.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

// What a traced motion comes to: how far its blocks follow, how they lie in the shut state, and
// what is loose.

namespace hinge {
namespace {

/// 0 or half a turn either way, whichever is nearest.
double halfTurns(double angle_rad) {
  return kPi * std::clamp(std::round(angle_rad / kPi), -1.0, 1.0);
}

} // namespace

void Motion::nearestShut(std::size_t b, BodyPoses& poses, Eigen::VectorXd& x) const {
  const Block& block = m_blocks[b];
  constexpr std::size_t kMost = 12;
  std::vector<std::pair<Eigen::Index, double>> open; // unknown, its angle when folded over
  for (std::size_t k = 0; k < block.steps.size(); ++k)
    if (const Pair& pair = m_mechanism->pairs[block.steps[k].pair];
        pair.fold.valid() && !m_assembly->folds[pair.fold].shutKnown)
      open.push_back({static_cast<Eigen::Index>(k),
                      m_assembly->folds[pair.fold].sense == FoldSense::Valley ? kPi : -kPi});
  if (open.empty() || open.size() > kMost || block.closing.empty()) return;
  const Eigen::VectorXd reached = x;
  double least = 1e300;
  Eigen::VectorXd trial = x, gaps;
  for (unsigned bits = 0; bits < 1u << open.size(); ++bits) {
    double far = 0;
    for (std::size_t k = 0; k < open.size(); ++k) {
      const auto [at, folded] = open[k];
      trial[at] = bits >> k & 1 ? folded : 0.0;
      far += std::abs(trial[at] - reached[at]);
    }
    placeBlock(*m_mechanism, block, trial, poses);
    closureResidual(*m_mechanism, block, poses, gaps);
    // Of two that close alike the one nearer to where the motion ended.
    const double gap = gaps.norm() + 1e-4 * far;
    if (gap < least) least = gap, x = trial;
  }
}

Eigen::VectorXd Motion::shutAngles(std::size_t b, BodyPoses& poses) const {
  const Block& block = m_blocks[b];
  // Where the nodes lead to: through the three lowest when they come near, else where they end.
  std::vector<std::pair<double, const Eigen::VectorXd*>> lowest;
  for (std::size_t k = 0; k < m_nodes.size() && lowest.size() < 3; ++k)
    if (m_nodes[k].angles[b].size() > 0)
      lowest.push_back({m_nodes[k].opening_rad, &m_nodes[k].angles[b]});
  Eigen::VectorXd reached = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(block.steps.size()));
  if (!lowest.empty())
    reached = lowest.front().first <= motion::kFlatDistance_rad * 1.5 ? interpolate(lowest, 0.0)
                                                                      : *lowest.front().second;
  Eigen::VectorXd x = reached;
  for (std::size_t k = 0; k < block.steps.size(); ++k) {
    const Pair& pair = m_mechanism->pairs[block.steps[k].pair];
    double& angle = x[static_cast<Eigen::Index>(k)];
    if (pair.fold.valid())
      angle = m_assembly->folds[pair.fold].shutKnown ? m_assembly->folds[pair.fold].shutAngle_rad
                                                     : halfTurns(angle);
    else if (!pair.restsAnywhere)
      angle = halfTurns(angle);
  }
  // Beside the shut card what is a little off leans far over: its angles may round to another way
  // of lying flat than the one that it nearly has.
  Eigen::VectorXd gaps;
  placeBlock(*m_mechanism, block, x, poses);
  closureResidual(*m_mechanism, block, poses, gaps);
  const bool ends = lowest.empty() || lowest.front().first > motion::kFlatDistance_rad * 1.5;
  const bool fixed = std::ranges::none_of(
      block.steps, [&](const Block::Step& s) { return m_mechanism->pairs[s.pair].restsAnywhere; });
  if (ends || (fixed && widestGap_mm(beyondPlay(block, std::move(gaps))) > motion::kAskew_mm))
    nearestShut(b, poses, x);
  return x;
}

const BodyPoses& Motion::posesAt(std::size_t node, NodePoses& known) const {
  const auto [it, isNew] = known.try_emplace(node);
  BodyPoses& poses = it->second;
  if (!isNew) return poses;
  const Node& at = m_nodes[node];
  poses.assign(m_mechanism->bodies.size(), Iso3::Identity());
  m_mechanism->placeBase(*m_assembly, at.opening_rad, poses);
  for (std::size_t b = 0; b < m_blocks.size(); ++b)
    if (at.angles[b].size() > 0) placeBlock(*m_mechanism, m_blocks[b], at.angles[b], poses);
  return poses;
}

Motion::BlockReport Motion::reachOf(std::size_t b, NodePoses& known) const {
  const Mechanism& m = *m_mechanism;
  const Block& block = m_blocks[b];
  BlockReport report;
  for (const auto& step : block.steps)
    for (PanelIndex panel : m.bodies[step.child].panels) {
      report.panels.push_back(panel);
      const auto& owner = m_assembly->panels[panel].owner;
      if (owner && m_assembly->panels[panel].use == PanelUse::Wall &&
          std::ranges::find(report.owners, *owner) == report.owners.end())
        report.owners.push_back(*owner);
    }
  std::vector<std::size_t> alive;
  for (std::size_t k = 0; k < m_nodes.size(); ++k)
    if (m_nodes[k].angles[b].size() > 0) alive.push_back(k);
  if (alive.empty()) {
    report.low_rad = kPi, report.high_rad = 0;
    return report;
  }
  report.low_rad = m_nodes[alive.front()].opening_rad;
  report.high_rad = m_nodes[alive.back()].opening_rad;
  const double low = m_assembly->low_rad, high = m_assembly->high_rad;
  if (report.low_rad <= low + motion::kFlatDistance_rad * 1.5) report.low_rad = low;
  if (report.high_rad >= high - motion::kFlatDistance_rad * 1.5) report.high_rad = high;
  if (block.shown_mm() > motion::kClosed_mm)
    for (const std::size_t node : alive)
      report.gap_mm = std::max(report.gap_mm, gapOf(block, posesAt(node, known)));
  // A rank counted at one opening may be special there; the generic rank is the largest one seen.
  report.freedoms = static_cast<int>(block.steps.size());
  for (double share : {0.25, 0.4, 0.5, 0.6, 0.75}) {
    const double last = static_cast<double>(alive.size() - 1);
    const std::size_t node = alive[static_cast<std::size_t>(share * last)];
    report.freedoms = std::min(report.freedoms, freedomsAt(m, block, posesAt(node, known)));
  }
  return report;
}

void Motion::shutBlock(std::size_t b, BodyPoses& shut, BlockReport& report) {
  const Mechanism& m = *m_mechanism;
  const Block& block = m_blocks[b];
  Eigen::VectorXd x = shutAngles(b, shut);
  const bool restsAnywhere = std::ranges::any_of(
      block.steps, [&](const Block::Step& s) { return m.pairs[s.pair].restsAnywhere; });
  if (restsAnywhere) correct(m, block, x, shut);
  placeBlock(m, block, x, shut);
  m_shut.push_back(x);
  Eigen::VectorXd gaps;
  closureResidual(m, block, shut, gaps);
  report.shutGap = beyondPlay(block, std::move(gaps)), report.closed_mm = block.closed_mm;
  report.shutMisfit_mm = widestGap_mm(report.shutGap);
}

void Motion::report() {
  const Mechanism& m = *m_mechanism;
  BodyPoses shut;
  shut.assign(m.bodies.size(), Iso3::Identity());
  m.placeBase(*m_assembly, 0.0, shut);
  std::vector<int> looseBy(m.bodies.size(), -1);
  m_loose.assign(m_assembly->panels.size(), 0);
  m_low = m_assembly->low_rad, m_high = m_assembly->high_rad;
  NodePoses atNodes;
  for (std::size_t b = 0; b < m_blocks.size(); ++b) {
    const Block& block = m_blocks[b];
    BlockReport report = reachOf(b, atNodes);
    const auto inherit = [&](BodyIndex body) {
      if (report.looseBy < 0) report.looseBy = looseBy[static_cast<std::size_t>(body.value)];
    };
    for (BodyIndex body : block.needs)
      inherit(body);
    if (report.looseBy < 0 && report.freedoms > 0) report.looseBy = static_cast<int>(b);
    for (const auto& step : block.steps)
      looseBy[static_cast<std::size_t>(step.child.value)] = report.looseBy;
    if (report.looseBy >= 0)
      for (PanelIndex panel : report.panels)
        m_loose[panel] = 1;
    shutBlock(b, shut, report);
    m_low = std::max(m_low, report.low_rad);
    m_high = std::min(m_high, report.high_rad);
    m_reports.push_back(std::move(report));
  }
  for (const Fold& fold : m_assembly->folds)
    m_foldShut.push(fold.shutAngle_rad);
  for (const Pair& pair : m.pairs)
    if (pair.fold.valid() && !m_assembly->folds[pair.fold].shutKnown)
      m_foldShut[pair.fold] = halfTurns(m.foldAngle(pair, shut[pair.left], shut[pair.right]));
  if (m_low > m_high)
    m_low = m_high = m_nodes.empty() ? 0.5 * kPi : m_nodes[m_nodes.size() / 2].opening_rad;
}

Pose Motion::shutPose() const {
  BodyPoses bodies;
  bodies.assign(m_mechanism->bodies.size(), Iso3::Identity());
  m_mechanism->placeBase(*m_assembly, 0.0, bodies);
  std::vector<char> placed = baseBodies(*m_mechanism);
  double worst = 0;
  for (std::size_t b = 0; b < m_blocks.size(); ++b) {
    const Block& block = m_blocks[b];
    placeBlock(*m_mechanism, block, m_shut[b], bodies);
    markPlaced(block, placed);
    worst = std::max(worst, m_reports[b].shutMisfit_mm);
  }
  Pose pose = worldPose(0.0, bodies, placed);
  pose.residual_mm = worst;
  return pose;
}

} // namespace hinge
