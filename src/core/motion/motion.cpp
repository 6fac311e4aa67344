// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/motion.h"
#include "core/motion/corrector.h"
#include "core/motion/nodes.h"
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

/// A joint of a free piece, which its maker placed.
bool isFree(const Assembly& assembly, const Pair& pair) {
  return pair.joint.valid() || !assembly.folds[pair.fold].shutKnown;
}

// Openings to start from, best first: the middle is far from every flat state.
constexpr double kStarts_deg[] = {90, 75,  105, 60,  120, 45,  135, 30, 150,
                                  20, 160, 10,  170, 5,   175, 2,   178};

constexpr std::size_t kNowhere = static_cast<std::size_t>(-1);

} // namespace

Pose Motion::worldPose(double opening_rad, const BodyPoses& bodies,
                       const std::vector<char>& placed) const {
  Pose pose{opening_rad};
  pose.panels.reserve(m_assembly->panels.size()), pose.placed.reserve(m_assembly->panels.size());
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
    if (parentsPlaced(block, placed)) {
      x = anglesFrom(*m_mechanism, block, guess);
      const double gap = correct(*m_mechanism, block, x, poses).residual_mm;
      const bool free = std::ranges::any_of(block.steps, [&](const Block::Step& s) {
        return isFree(*m_assembly, m_mechanism->pairs[s.pair]);
      });
      if (free && gap < motion::kAskew_mm)
        block.closed_mm = std::max(motion::kClosed_mm, motion::kAskewShare * gap);
      else if (free && gap < m_assembly->closureLimit_mm)
        block.closed_mm = m_assembly->closureLimit_mm;
      if (gap < block.closed_mm)
        markPlaced(block, placed);
      else
        x.resize(0);
    }
    node.angles.push_back(x);
  }
  m_nodes = {node};
}

void Motion::takeBack(std::vector<Node>& path, const std::vector<std::size_t>& given,
                      const std::vector<char>& alive) {
  std::vector<int> placedBy(m_mechanism->bodies.size(), -1);
  for (std::size_t b = 0; b < m_blocks.size(); ++b) {
    if (given[b] != kNowhere && alive[b])
      m_blocks[b].given_mm = m_assembly->closureLimit_mm;
    else if (given[b] != kNowhere)
      for (std::size_t k = given[b]; k < path.size(); ++k)
        path[k].angles[b].resize(0);
    // What stands on a block goes no farther than that.
    for (BodyIndex body : m_blocks[b].needs)
      if (const int host = placedBy[static_cast<std::size_t>(body.value)]; host >= 0)
        for (Node& node : path)
          if (node.angles[static_cast<std::size_t>(host)].size() == 0) node.angles[b].resize(0);
    for (const Block::Step& step : m_blocks[b].steps)
      placedBy[static_cast<std::size_t>(step.child.value)] = static_cast<int>(b);
  }
}

double Motion::gapOf(const Block& block, const BodyPoses& poses) const {
  Eigen::VectorXd gaps;
  closureResidual(*m_mechanism, block, poses, gaps);
  return widestGap_mm(beyondPlay(block, std::move(gaps)));
}

bool Motion::traceDirection(double towards_rad, std::stop_token stop) {
  using namespace motion;
  const double sign = towards_rad > m_nodes.front().opening_rad ? 1.0 : -1.0;
  std::vector<Node> path{m_nodes.front()};
  std::vector<char> alive(m_blocks.size());
  for (std::size_t b = 0; b < m_blocks.size(); ++b)
    alive[b] = path[0].angles[b].size() > 0;
  // Blocks at their limit that are followed farther, as far as paper gives, and the first node of
  // that.
  std::vector<std::size_t> given(m_blocks.size(), kNowhere);
  const double gives_mm = m_assembly->closureLimit_mm;
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
      if (!parentsPlaced(m_blocks[b], placed)) { // what it stands on has reached its limit
        alive[b] = 0;
        continue;
      }
      std::vector<std::pair<double, const Eigen::VectorXd*>> points;
      for (std::size_t k = path.size(); k-- > 0 && points.size() < 3;)
        points.push_back({path[k].opening_rad, &path[k].angles[b]});
      Eigen::VectorXd x = interpolate(points, node.opening_rad);
      const double predicted = (x - path.back().angles[b]).cwiseAbs().maxCoeff();
      const Correction c = correct(*m_mechanism, m_blocks[b], x, poses);
      const bool gives = given[b] != kNowhere; // where it bends round its limit
      const bool jumped = !gives && path.size() > 1 && c.moved_rad > kHarmlessCorrection_rad &&
                          c.moved_rad > kCorrectionShare * predicted;
      const bool closes =
          c.residual_mm < m_blocks[b].closed_mm || (gives && gapOf(m_blocks[b], poses) <= gives_mm);
      if (!closes || jumped)
        failed = b;
      else
        markPlaced(m_blocks[b], placed), node.angles[b] = std::move(x);
    }
    if (failed < m_blocks.size()) {
      step *= 0.5;
      if (step < kLeastTraceStep_rad) { // at its limit; the others go on
        if (given[failed] == kNowhere && m_blocks[failed].closed_mm < gives_mm)
          given[failed] = path.size();
        else
          alive[failed] = 0;
        step = kTraceStep_rad / 16;
      }
      continue;
    }
    path.push_back(std::move(node));
    step *= 2;
  }
  takeBack(path, given, alive);
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

std::vector<char> Motion::blocksFor(const std::vector<BodyIndex>& bodies) const {
  std::vector<char> wanted(m_blocks.size(), 0);
  std::vector<BodyIndex> open = bodies;
  while (!open.empty()) {
    const int b = m_placedBy[open.back()];
    open.pop_back();
    if (b < 0 || wanted[static_cast<std::size_t>(b)]) continue;
    wanted[static_cast<std::size_t>(b)] = 1;
    for (BodyIndex body : m_blocks[static_cast<std::size_t>(b)].needs)
      open.push_back(body);
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
  std::vector<std::pair<double, const Eigen::VectorXd*>> points;
  for (std::size_t b = 0; b < m_blocks.size(); ++b) {
    const Block& block = m_blocks[b];
    const BlockReport& report = m_reports[b];
    if (!wanted.empty() && !wanted[b]) continue;
    constexpr double kSlack_rad = 1e-9;
    if (t < report.low_rad - kSlack_rad || t > report.high_rad + kSlack_rad ||
        report.low_rad > report.high_rad)
      continue;
    if (!parentsPlaced(block, placed)) continue;
    Eigen::VectorXd x;
    const bool exactlyShut = t == 0.0 && report.shutMisfit_mm < block.shown_mm();
    if (exactlyShut) {
      placeBlock(*m_mechanism, block, m_shut[b], bodies);
    } else {
      // The four nodes round the opening at which this block is alive.
      points.clear();
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
      if (!(c.residual_mm < std::max(motion::kShown_mm, block.shown_mm()))) continue;
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
    if (!parentsPlaced(block, placed)) continue;
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
