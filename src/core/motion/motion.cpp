// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/motion.h"
#include "core/motion/corrector.h"
#include "core/motion/placing.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

Eigen::VectorXd anglesFrom(const Mechanism& m, const Block& block, const BodyPoses& poses) {
  Eigen::VectorXd x(static_cast<Eigen::Index>(block.steps.size()));
  for (std::size_t k = 0; k < block.steps.size(); ++k) {
    const Pair& pair = m.pairs[block.steps[k].pair];
    x[static_cast<Eigen::Index>(k)] = m.foldAngle(pair, poses[pair.left], poses[pair.right]);
  }
  return x;
}

/// Value at `t` of the polynomial through up to four points.
Eigen::VectorXd interpolate(const std::vector<std::pair<double, const Eigen::VectorXd*>>& points,
                            double t) {
  Eigen::VectorXd sum = Eigen::VectorXd::Zero(points.front().second->size());
  for (std::size_t i = 0; i < points.size(); ++i) {
    double weight = 1;
    for (std::size_t j = 0; j < points.size(); ++j)
      if (i != j) weight *= (t - points[j].first) / (points[i].first - points[j].first);
    sum += weight * *points[i].second;
  }
  return sum;
}

/// A joint of a free piece, which its maker placed.
bool isFree(const Assembly& assembly, const Pair& pair) {
  return pair.joint.valid() || !assembly.folds[pair.fold].shutKnown;
}

/// 0 or half a turn either way, whichever is nearest.
double halfTurns(double angle_rad) {
  return kPi * std::clamp(std::round(angle_rad / kPi), -1.0, 1.0);
}

bool parentsPlaced(const Block& block, const Mechanism& m, const std::vector<char>& placed) {
  const auto has = [&](BodyIndex b) { return placed[static_cast<std::size_t>(b.value)] != 0; };
  std::vector<BodyIndex> own;
  for (const auto& step : block.steps)
    own.push_back(step.child);
  const auto mine = [&](BodyIndex b) { return std::ranges::find(own, b) != own.end(); };
  for (const auto& step : block.steps)
    if (!mine(step.parent) && !has(step.parent)) return false;
  for (PairIndex j : block.closing)
    for (BodyIndex b : {m.pairs[j].left, m.pairs[j].right})
      if (!mine(b) && !has(b)) return false;
  return true;
}

void markPlaced(const Block& block, std::vector<char>& placed) {
  for (const auto& step : block.steps)
    placed[static_cast<std::size_t>(step.child.value)] = 1;
}

std::vector<char> baseBodies(const Mechanism& m) {
  std::vector<char> placed(m.bodies.size(), 0);
  for (PanelIndex page : m.pages)
    placed[static_cast<std::size_t>(m.bodyOf[page].value)] = 1;
  return placed;
}

// Openings to start from, best first: the middle is far from every flat state.
constexpr double kStarts_deg[] = {90, 75,  105, 60,  120, 45,  135, 30, 150,
                                  20, 160, 10,  170, 5,   175, 2,   178};

} // namespace

Pose Motion::worldPose(double opening_rad, const BodyPoses& bodies,
                       const std::vector<char>& placed) const {
  Pose pose{opening_rad};
  for (PanelIndex p : m_assembly->panels.indices()) {
    const BodyIndex body = m_mechanism->bodyOf[p];
    pose.panels.push(bodies[body] * m_mechanism->inBody[p]);
    pose.placed.push(placed[static_cast<std::size_t>(body.value)]);
  }
  return pose;
}

void Motion::startAt(double opening_rad, const BodyPoses& guess) {
  BodyPoses poses = guess;
  std::vector<char> placed = baseBodies(*m_mechanism);
  Node node{opening_rad, {}};
  for (Block& block : m_blocks) {
    Eigen::VectorXd x;
    if (parentsPlaced(block, *m_mechanism, placed)) {
      x = anglesFrom(*m_mechanism, block, guess);
      const double gap = correct(*m_mechanism, block, x, poses).residual_mm;
      const bool free = std::ranges::any_of(block.steps, [&](const Block::Step& s) {
        return isFree(*m_assembly, m_mechanism->pairs[s.pair]);
      });
      if (free && gap < motion::kAskew_mm)
        block.closed_mm = std::max(motion::kClosed_mm, motion::kAskewShare * gap);
      if (gap < block.closed_mm)
        markPlaced(block, placed);
      else
        x.resize(0);
    }
    node.angles.push_back(x);
  }
  m_nodes = {node};
}

bool Motion::traceDirection(double towards_rad, std::stop_token stop) {
  using namespace motion;
  const double sign = towards_rad > m_nodes.front().opening_rad ? 1.0 : -1.0;
  std::vector<Node> path{m_nodes.front()};
  std::vector<char> alive(m_blocks.size());
  for (std::size_t b = 0; b < m_blocks.size(); ++b)
    alive[b] = path[0].angles[b].size() > 0;
  BodyPoses poses;
  poses.assign(m_mechanism->bodies.size(), Iso3::Identity());
  double step = kTraceStep_rad;
  while (!stop.stop_requested()) {
    const double here = path.back().opening_rad, left = std::abs(towards_rad - here);
    if (left <= kFlatDistance_rad * 1.5) break;
    step = std::min({step, kTraceStep_rad, 0.5 * left});
    Node node{here + sign * step, std::vector<Eigen::VectorXd>(m_blocks.size())};
    m_mechanism->placeBase(*m_assembly, node.opening_rad, poses);
    std::vector<char> placed = baseBodies(*m_mechanism);
    std::size_t failed = m_blocks.size();
    for (std::size_t b = 0; b < m_blocks.size() && failed == m_blocks.size(); ++b) {
      if (!alive[b]) continue;
      if (!parentsPlaced(m_blocks[b], *m_mechanism,
                         placed)) { // what it stands on has reached its limit
        alive[b] = 0;
        continue;
      }
      std::vector<std::pair<double, const Eigen::VectorXd*>> points;
      for (std::size_t k = path.size(); k-- > 0 && points.size() < 3;)
        points.push_back({path[k].opening_rad, &path[k].angles[b]});
      Eigen::VectorXd x = interpolate(points, node.opening_rad);
      const double predicted = (x - path.back().angles[b]).cwiseAbs().maxCoeff();
      const Correction c = correct(*m_mechanism, m_blocks[b], x, poses);
      const bool jumped = path.size() > 1 && c.moved_rad > kHarmlessCorrection_rad &&
                          c.moved_rad > kCorrectionShare * predicted;
      if (!(c.residual_mm < m_blocks[b].closed_mm) || jumped)
        failed = b;
      else
        markPlaced(m_blocks[b], placed), node.angles[b] = std::move(x);
    }
    if (failed < m_blocks.size()) {
      step *= 0.5;
      if (step < kLeastTraceStep_rad) {
        alive[failed] = 0; // at its limit; the others go on
        step = kTraceStep_rad / 16;
      }
      continue;
    }
    path.push_back(std::move(node));
    step *= 2;
  }
  path.erase(path.begin());
  if (sign < 0) {
    std::reverse(path.begin(), path.end());
    path.insert(path.end(), m_nodes.begin(), m_nodes.end());
    m_nodes = std::move(path);
  } else {
    m_nodes.insert(m_nodes.end(), path.begin(), path.end());
  }
  return !stop.stop_requested();
}

Motion Motion::trace(std::shared_ptr<const Assembly> assembly, std::stop_token stop,
                     const Motion* near) {
  Motion motion;
  motion.m_assembly = std::move(assembly);
  motion.m_mechanism = std::make_shared<const Mechanism>(Mechanism::from(*motion.m_assembly));
  const Mechanism& m = *motion.m_mechanism;
  std::vector<char> missing, best;
  BodyPoses guess;
  double start = 0;
  // Free pieces that go together go together at most openings in the middle; elsewhere fewer tries
  // have to do.
  constexpr int kThorough = 3, kManyTries = 24, kFewTries = 4;
  int starts = 0;
  for (double share : kStarts_deg) {
    const double t =
        degrees(motion.m_assembly->low_rad) +
        share / 180 * degrees(motion.m_assembly->high_rad - motion.m_assembly->low_rad);
    if (stop.stop_requested() && !best.empty()) break;
    BodyPoses poses = placeAll(*motion.m_assembly, m, radians(t), missing,
                               starts++ < kThorough ? kManyTries : kFewTries, near);
    if (best.empty() || std::ranges::count(missing, 1) < std::ranges::count(best, 1))
      best = missing, guess = std::move(poses), start = radians(t);
    if (std::ranges::count(best, 1) == 0) break;
  }
  for (const Placement& placement : motion.m_assembly->placements)
    if (placement.owner && std::ranges::any_of(placement.panels, [&](PanelIndex p) {
          return best[static_cast<std::size_t>(m.bodyOf[p].value)] != 0;
        }))
      motion.m_impossible.push_back(*placement.owner);
  motion.m_blocks = splitIntoBlocks(m, *motion.m_assembly, guess, best);
  motion.m_placedBy.assign(m.bodies.size(), -1);
  for (std::size_t b = 0; b < motion.m_blocks.size(); ++b)
    for (const auto& step : motion.m_blocks[b].steps)
      motion.m_placedBy[step.child] = static_cast<int>(b);
  motion.startAt(start, guess);
  const Node first = motion.m_nodes.front();
  motion.traceDirection(motion.m_assembly->low_rad, stop);
  // The second direction starts from the first node again.
  std::vector<Node> below(motion.m_nodes.begin(), motion.m_nodes.end() - 1);
  motion.m_nodes = {first};
  motion.traceDirection(motion.m_assembly->high_rad, stop);
  motion.m_nodes.insert(motion.m_nodes.begin(), below.begin(), below.end());
  motion.report();
  return motion;
}

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
  Closure closure;
  Eigen::VectorXd trial = x;
  for (unsigned bits = 0; bits < 1u << open.size(); ++bits) {
    double far = 0;
    for (std::size_t k = 0; k < open.size(); ++k) {
      const auto [at, folded] = open[k];
      trial[at] = bits >> k & 1 ? folded : 0.0;
      far += std::abs(trial[at] - reached[at]);
    }
    placeBlock(*m_mechanism, block, trial, poses);
    evaluateClosure(*m_mechanism, block, poses, closure);
    // Of two that close alike the one nearer to where the motion ended.
    const double gap = closure.residual.norm() + 1e-4 * far;
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
  if (lowest.empty() || lowest.front().first > motion::kFlatDistance_rad * 1.5)
    nearestShut(b, poses, x);
  return x;
}

Motion::BlockReport Motion::reachOf(std::size_t b) const {
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
  // A rank counted at one opening may be special there; the generic rank is the largest one seen.
  report.freedoms = static_cast<int>(block.steps.size());
  for (double share : {0.25, 0.4, 0.5, 0.6, 0.75}) {
    const double last = static_cast<double>(alive.size() - 1);
    const Node& node = m_nodes[alive[static_cast<std::size_t>(share * last)]];
    BodyPoses poses;
    poses.assign(m.bodies.size(), Iso3::Identity());
    m.placeBase(*m_assembly, node.opening_rad, poses);
    for (std::size_t before = 0; before <= b; ++before)
      if (node.angles[before].size() > 0)
        placeBlock(m, m_blocks[before], node.angles[before], poses);
    report.freedoms = std::min(report.freedoms, freedomsAt(m, block, poses));
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
  Closure closure;
  evaluateClosure(m, block, shut, closure);
  for (Eigen::Index r = 0; r + 3 <= closure.residual.size(); r += 3)
    report.shutMisfit_mm = std::max(report.shutMisfit_mm, closure.residual.segment<3>(r).norm());
  report.shutGap = closure.residual, report.closed_mm = block.closed_mm;
}

void Motion::report() {
  const Mechanism& m = *m_mechanism;
  BodyPoses shut;
  shut.assign(m.bodies.size(), Iso3::Identity());
  m.placeBase(*m_assembly, 0.0, shut);
  std::vector<int> looseBy(m.bodies.size(), -1);
  m_loose.assign(m_assembly->panels.size(), 0);
  m_low = m_assembly->low_rad, m_high = m_assembly->high_rad;
  for (std::size_t b = 0; b < m_blocks.size(); ++b) {
    const Block& block = m_blocks[b];
    BlockReport report = reachOf(b);
    const auto inherit = [&](BodyIndex body) {
      if (report.looseBy < 0) report.looseBy = looseBy[static_cast<std::size_t>(body.value)];
    };
    for (const auto& step : block.steps)
      inherit(step.parent);
    for (PairIndex j : block.closing)
      inherit(m.pairs[j].left), inherit(m.pairs[j].right);
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

std::vector<char> Motion::blocksFor(const std::vector<BodyIndex>& bodies) const {
  std::vector<char> wanted(m_blocks.size(), 0);
  std::vector<BodyIndex> open = bodies;
  while (!open.empty()) {
    const int b = m_placedBy[open.back()];
    open.pop_back();
    if (b < 0 || wanted[static_cast<std::size_t>(b)]) continue;
    wanted[static_cast<std::size_t>(b)] = 1;
    const Block& block = m_blocks[static_cast<std::size_t>(b)];
    for (const auto& step : block.steps)
      open.push_back(step.parent);
    for (PairIndex j : block.closing)
      open.push_back(m_mechanism->pairs[j].left), open.push_back(m_mechanism->pairs[j].right);
  }
  return wanted;
}

Pose Motion::poseAt(double opening_rad, const std::vector<char>& wanted) const {
  using namespace motion;
  const double t = std::clamp(opening_rad, 0.0, kPi);
  BodyPoses bodies;
  bodies.assign(m_mechanism->bodies.size(), Iso3::Identity());
  m_mechanism->placeBase(*m_assembly, t, bodies);
  std::vector<char> placed = baseBodies(*m_mechanism);
  const auto after = std::ranges::lower_bound(m_nodes, t, {}, &Node::opening_rad);
  const auto middle = after - m_nodes.begin();
  double worst = 0;
  for (std::size_t b = 0; b < m_blocks.size(); ++b) {
    const Block& block = m_blocks[b];
    const BlockReport& report = m_reports[b];
    if (!wanted.empty() && !wanted[b]) continue;
    constexpr double kSlack_rad = 1e-9;
    if (t < report.low_rad - kSlack_rad || t > report.high_rad + kSlack_rad ||
        report.low_rad > report.high_rad)
      continue;
    if (!parentsPlaced(block, *m_mechanism, placed)) continue;
    Eigen::VectorXd x;
    const bool exactlyShut = t == 0.0 && report.shutMisfit_mm < block.closed_mm;
    if (exactlyShut) {
      placeBlock(*m_mechanism, block, m_shut[b], bodies);
    } else {
      // The four nodes round the opening at which this block is alive.
      std::vector<std::pair<double, const Eigen::VectorXd*>> points;
      for (auto k = middle - 1; k >= 0 && points.size() < 2; --k)
        if (const Node& n = m_nodes[static_cast<std::size_t>(k)]; n.angles[b].size() > 0)
          points.push_back({n.opening_rad, &n.angles[b]});
      for (auto k = middle; k < static_cast<std::ptrdiff_t>(m_nodes.size()) && points.size() < 4;
           ++k)
        if (const Node& n = m_nodes[static_cast<std::size_t>(k)]; n.angles[b].size() > 0)
          points.push_back({n.opening_rad, &n.angles[b]});
      for (auto k = middle - 1 -
                    static_cast<std::ptrdiff_t>(
                        std::min<std::size_t>(2, static_cast<std::size_t>(middle)));
           k >= 0 && points.size() < 4; --k)
        if (const Node& n = m_nodes[static_cast<std::size_t>(k)]; n.angles[b].size() > 0)
          points.push_back({n.opening_rad, &n.angles[b]});
      x = interpolate(points, t);
      const Correction c = correct(*m_mechanism, block, x, bodies);
      if (!(c.residual_mm < std::max(motion::kShown_mm, block.closed_mm))) continue;
      worst = std::max(worst, c.residual_mm);
    }
    markPlaced(block, placed);
  }
  Pose pose = worldPose(t, bodies, placed);
  pose.residual_mm = worst;
  return pose;
}

Pose Motion::quickPose(const Assembly& assembly, double opening_rad, const Motion* near) {
  const Mechanism m = Mechanism::from(assembly);
  std::vector<char> missing;
  // The closed forms are singular in the flat states themselves; a hair beside them looks the same.
  const double t = std::clamp(opening_rad, radians(0.05), kPi - radians(0.001));
  BodyPoses poses = placeAll(assembly, m, t, missing, 0, near); // no search
  const std::vector<Block> blocks = splitIntoBlocks(m, assembly, poses, missing);
  std::vector<char> placed = baseBodies(m);
  for (const Block& block : blocks) {
    if (!parentsPlaced(block, m, placed)) continue;
    Eigen::VectorXd x = anglesFrom(m, block, poses);
    BodyPoses solved = poses;
    if (correct(m, block, x, solved).residual_mm < motion::kShown_mm)
      poses = std::move(solved), markPlaced(block, placed);
  }
  Pose pose{t};
  for (PanelIndex p : assembly.panels.indices()) {
    pose.panels.push(poses[m.bodyOf[p]] * m.inBody[p]);
    pose.placed.push(placed[static_cast<std::size_t>(m.bodyOf[p].value)]);
  }
  return pose;
}

int Motion::mobility() const {
  int sum = 0;
  for (const BlockReport& report : m_reports)
    sum += report.freedoms;
  return sum;
}

std::vector<double> Motion::nodeOpenings() const {
  std::vector<double> all;
  for (const Node& node : m_nodes)
    all.push_back(node.opening_rad);
  return all;
}

} // namespace hinge
