// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/blocks.h"
#include "core/geom/symmetric.h"
#include "core/motion/play.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <deque>

namespace hinge {

void placeBlock(const Mechanism& mechanism, const Block& block,
                const Eigen::Ref<const Eigen::VectorXd>& x, BodyPoses& poses) {
  for (std::size_t k = 0; k < block.steps.size(); ++k) {
    const Block::Step& step = block.steps[k];
    poses[step.child] = mechanism.across(mechanism.pairs[step.pair], step.parent,
                                         poses[step.parent], x[static_cast<Eigen::Index>(k)]);
  }
}

void closureResidual(const Mechanism& mechanism, const Block& block, const BodyPoses& poses,
                     Eigen::VectorXd& out) {
  out.resize(static_cast<Eigen::Index>(6 * block.closing.size()));
  for (std::size_t c = 0; c < block.closing.size(); ++c) {
    const Pair& pair = mechanism.pairs[block.closing[c]];
    const Iso3 &left = poses[pair.left], &right = poses[pair.right];
    const auto row = static_cast<Eigen::Index>(6 * c);
    out.segment<3>(row) = left * pair.leftFrom - right * pair.rightFrom;
    out.segment<3>(row + 3) = left * pair.leftTo - right * pair.rightTo;
  }
}

void closureJacobian(const Mechanism& mechanism, const Block& block, const BodyPoses& poses,
                     Eigen::MatrixXd& out) {
  out.setZero(static_cast<Eigen::Index>(6 * block.closing.size()),
              static_cast<Eigen::Index>(block.steps.size()));
  for (std::size_t c = 0; c < block.closing.size(); ++c) {
    const Pair& pair = mechanism.pairs[block.closing[c]];
    const Vec3 ends[2][2] = {
        {poses[pair.left] * pair.leftFrom, poses[pair.left] * pair.leftTo},
        {poses[pair.right] * pair.rightFrom, poses[pair.right] * pair.rightTo}};
    const auto row = static_cast<Eigen::Index>(6 * c);
    for (std::size_t k = 0; k < block.steps.size(); ++k) {
      const Block::Step& step = block.steps[k];
      const Pair& hinge = mechanism.pairs[step.pair];
      const Iso3& left = poses[hinge.left];
      const Vec3 axis = step.turn * (left.linear() * hinge.leftAxis),
                 origin = left * hinge.leftFrom;
      const Vec3 run = -Pair::kSlideScale_mm * axis; // a slide's right body goes along its line
      for (int side : {0, 1}) {
        const int last = block.ends[c][static_cast<std::size_t>(side)];
        if (last < 0 || std::ranges::find(step.moves, last) == step.moves.end()) continue;
        const double sign = side == 0 ? 1.0 : -1.0;
        for (int e : {0, 1})
          out.block<3, 1>(row + 3 * e, static_cast<Eigen::Index>(k)) +=
              sign * (hinge.slides ? run : Vec3(axis.cross(ends[side][e] - origin)));
      }
    }
  }
}

int freedomsAt(const Mechanism& mechanism, const Block& block, const BodyPoses& poses) {
  const int unknowns = static_cast<int>(block.steps.size());
  if (block.closing.empty()) return unknowns;
  Eigen::MatrixXd jacobian;
  closureJacobian(mechanism, block, poses, jacobian);
  // Singular values by the eigenvalues of J'J: its rounding is 1e-8 of the largest, far below.
  const Eigen::VectorXd squares = symmetricParts(jacobian.transpose() * jacobian).values;
  const double least = std::max(1e-6 * std::sqrt(std::max(0.0, squares.maxCoeff())),
                                motion::kRoundingLever * block.size_mm);
  const auto rank = (squares.array() > least * least).count();
  return unknowns - static_cast<int>(rank);
}

namespace {

int placeIn(const PairTree& tree, BodyIndex body) {
  for (std::size_t k = 0; k < tree.size(); ++k)
    if (tree[k].first == body) return static_cast<int>(k);
  return -1;
}

/// True when `body` hangs on `above`, directly or not, or is it.
bool hangsOn(const Mechanism& m, const PairTree& tree, BodyIndex body, BodyIndex above) {
  for (int k = placeIn(tree, body);; k = placeIn(tree, body)) {
    if (body == above) return true;
    if (k < 0) return false;
    body = m.pairs[tree[static_cast<std::size_t>(k)].second].other(body);
  }
}

void slidesIntoTree(const Mechanism& m, PairTree& tree, const std::vector<char>& placed) {
  const auto known = [&](BodyIndex b) { return placed[static_cast<std::size_t>(b.value)] != 0; };
  bool changed = false;
  for (PairIndex j : m.pairs.indices()) {
    const Pair& pair = m.pairs[j];
    if (!pair.slides || std::ranges::any_of(tree, [&](const auto& t) { return t.second == j; }))
      continue;
    for (const auto& [own, other] :
         {std::pair{pair.right, pair.left}, std::pair{pair.left, pair.right}}) {
      const int at = placeIn(tree, own);
      if (at < 0 || (placeIn(tree, other) < 0 && !known(other)) || hangsOn(m, tree, other, own))
        continue;
      tree[static_cast<std::size_t>(at)].second = j;
      changed = true;
      break;
    }
  }
  if (!changed) return;
  PairTree sorted;
  while (sorted.size() < tree.size()) {
    const std::size_t before = sorted.size();
    for (const auto& [child, pair] : tree) {
      const BodyIndex parent = m.pairs[pair].other(child);
      if (placeIn(sorted, child) < 0 && (placeIn(sorted, parent) >= 0 || placeIn(tree, parent) < 0))
        sorted.push_back({child, pair});
    }
    if (sorted.size() == before) return;
  }
  tree = std::move(sorted);
}

} // namespace

PairTree treeOver(const Mechanism& m, const std::vector<char>& wanted,
                  const std::vector<char>& placed) {
  std::vector<char> have = placed;
  PairTree tree;
  std::deque<BodyIndex> open;
  for (BodyIndex b : m.bodies.indices())
    if (placed[static_cast<std::size_t>(b.value)]) open.push_back(b);
  while (!open.empty()) {
    const BodyIndex b = open.front();
    open.pop_front();
    for (PairIndex j : m.bodies[b].pairs) {
      const BodyIndex next = m.pairs[j].other(b);
      const auto at = static_cast<std::size_t>(next.value);
      if (have[at] || !wanted[at]) continue;
      have[at] = 1;
      tree.push_back({next, j});
      open.push_back(next);
    }
  }
  return tree;
}

Block blockFromTree(const Mechanism& m, const Assembly& assembly, PairTree tree,
                    const std::vector<char>& placed) {
  slidesIntoTree(m, tree, placed);
  Block block;
  const auto stepOf = [&](BodyIndex b) { return placeIn(tree, b); };
  for (std::size_t k = 0; k < tree.size(); ++k) {
    const auto [child, pair] = tree[k];
    const Pair& hinge = m.pairs[pair];
    block.steps.push_back({pair,
                           hinge.other(child),
                           child,
                           child == hinge.right ? -1.0 : 1.0,
                           {static_cast<int>(k)}});
    for (BodyIndex up = hinge.other(child); stepOf(up) >= 0;) {
      auto& above = block.steps[static_cast<std::size_t>(stepOf(up))];
      above.moves.push_back(static_cast<int>(k));
      up = above.parent;
    }
    for (PanelIndex panel : m.bodies[child].panels)
      block.size_mm =
          std::max(block.size_mm, boundsOf(assembly.panels[panel].outline).size().norm());
  }
  for (const auto& [child, own] : tree)
    for (PairIndex j : m.bodies[child].pairs) {
      const Pair& hinge = m.pairs[j];
      const bool inTree = std::ranges::any_of(tree, [&](const auto& t) { return t.second == j; });
      const BodyIndex other = hinge.other(child);
      const bool otherKnown = placed[static_cast<std::size_t>(other.value)] || stepOf(other) >= 0;
      if (inTree || !otherKnown || std::ranges::find(block.closing, j) != block.closing.end())
        continue;
      block.closing.push_back(j);
      block.ends.push_back({stepOf(hinge.left), stepOf(hinge.right)});
    }
  const auto need = [&](BodyIndex b) {
    if (stepOf(b) < 0 && std::ranges::find(block.needs, b) == block.needs.end())
      block.needs.push_back(b);
  };
  for (const Block::Step& step : block.steps)
    need(step.parent);
  for (PairIndex j : block.closing)
    need(m.pairs[j].left), need(m.pairs[j].right);
  allowPlay(m, assembly, block);
  return block;
}

namespace {

/// For every step of a block whether its child moves in any of the freedoms that the rings leave.
std::vector<char> movingSteps(const Mechanism& mechanism, const Block& block,
                              const BodyPoses& poses) {
  constexpr double kStill = 1e-6; // of a turn, or of the block's size
  std::vector<char> moves(block.steps.size(), 0);
  Eigen::MatrixXd freedoms = Eigen::MatrixXd::Identity(
      static_cast<Eigen::Index>(block.steps.size()), static_cast<Eigen::Index>(block.steps.size()));
  if (!block.closing.empty()) {
    Eigen::MatrixXd jacobian;
    closureJacobian(mechanism, block, poses, jacobian);
    freedoms = symmetricParts(jacobian.transpose() * jacobian).vectors.leftCols(block.freedoms);
  }
  for (Eigen::Index f = 0; f < freedoms.cols(); ++f)
    for (std::size_t k = 0; k < block.steps.size(); ++k) {
      const Vec3 at = poses[block.steps[k].child].translation();
      Vec3 turn = Vec3::Zero(), run = Vec3::Zero();
      for (std::size_t j = 0; j < block.steps.size(); ++j) {
        const Block::Step& step = block.steps[j];
        if (std::ranges::find(step.moves, static_cast<int>(k)) == step.moves.end()) continue;
        const Pair& hinge = mechanism.pairs[step.pair];
        const Iso3& left = poses[hinge.left];
        const Vec3 axis = freedoms(static_cast<Eigen::Index>(j), f) * step.turn *
                          (left.linear() * hinge.leftAxis);
        if (hinge.slides)
          run -= Pair::kSlideScale_mm * axis;
        else
          turn += axis, run += axis.cross(at - left * hinge.leftFrom);
      }
      if (turn.norm() > kStill || run.norm() > kStill * block.size_mm) moves[k] = 1;
    }
  return moves;
}

class Splitter {
public:
  Splitter(const Mechanism& mechanism, const Assembly& assembly, const BodyPoses& reference,
           const std::vector<char>& skip)
      : m(mechanism), m_assembly(assembly), m_reference(reference),
        m_placed(mechanism.bodies.size(), 0), m_skip(skip) {}

  std::vector<Block> run() {
    placeBase();
    for (;;) {
      Tree ring = findRing(placedBodies());
      if (ring.empty()) ring = findBridge();
      if (ring.empty()) break;
      Block block = blockOf(ring);
      if (block.freedoms > 0) widen(ring, block);
      if (block.freedoms > 0) keepGuided(ring, block);
      for (const auto& [child, pair] : ring)
        place(child);
      m_trees.push_back(std::move(ring));
      m_blocks.push_back(std::move(block));
    }
    while (mergeGuides()) {
    }
    return std::move(m_blocks);
  }

private:
  using Tree = PairTree;

  bool placed(BodyIndex b) const { return m_placed[static_cast<std::size_t>(b.value)]; }
  bool skipped(BodyIndex b) const { return m_skip[static_cast<std::size_t>(b.value)]; }
  void place(BodyIndex b) { m_placed[static_cast<std::size_t>(b.value)] = 1; }
  void placeBase() {
    for (PanelIndex page : m.pages)
      place(m.bodyOf[page]);
  }
  std::vector<BodyIndex> placedBodies() const {
    std::vector<BodyIndex> all;
    for (BodyIndex b : m.bodies.indices())
      if (placed(b)) all.push_back(b);
    return all;
  }

  /// Breadth-first from `sources` through bodies that are neither placed nor sources; the first
  /// joint that meets a second branch or a placed body closes the ring.
  Tree findRing(const std::vector<BodyIndex>& sources) const {
    const std::size_t n = m.bodies.size();
    std::vector<int> branch(n, -1);
    std::vector<PairIndex> via(n);
    std::vector<BodyIndex> from(n);
    std::vector<char> source(n, 0);
    for (BodyIndex b : sources)
      source[static_cast<std::size_t>(b.value)] = 1;
    std::deque<BodyIndex> open;
    const auto at = [](BodyIndex b) { return static_cast<std::size_t>(b.value); };
    const auto path = [&](BodyIndex b) {
      Tree back;
      for (; b.valid() && !source[at(b)]; b = from[at(b)])
        back.push_back({b, via[at(b)]});
      std::reverse(back.begin(), back.end());
      return back;
    };
    int branches = 0;
    for (BodyIndex b : sources)
      for (PairIndex j : m.bodies[b].pairs) {
        const BodyIndex next = m.pairs[j].other(b);
        if (source[at(next)] || placed(next) || skipped(next) || branch[at(next)] >= 0) continue;
        branch[at(next)] = branches++;
        via[at(next)] = j;
        from[at(next)] = b;
        open.push_back(next);
      }
    while (!open.empty()) {
      const BodyIndex b = open.front();
      open.pop_front();
      for (PairIndex j : m.bodies[b].pairs) {
        if (j == via[at(b)]) continue;
        const BodyIndex next = m.pairs[j].other(b);
        if (skipped(next)) continue;
        if (source[at(next)] || placed(next)) return path(b);
        if (branch[at(next)] < 0) {
          branch[at(next)] = branch[at(b)];
          via[at(next)] = j;
          from[at(next)] = b;
          open.push_back(next);
        } else if (branch[at(next)] != branch[at(b)]) {
          Tree ring = path(b), other = path(next);
          ring.insert(ring.end(), other.begin(), other.end());
          return ring;
        }
      }
    }
    return {};
  }

  /// A body that hangs on one joint only: a flap.
  Tree findBridge() const {
    for (PairIndex j : m.pairs.indices()) {
      const Pair& pair = m.pairs[j];
      if (placed(pair.left) != placed(pair.right)) {
        const BodyIndex child = placed(pair.left) ? pair.right : pair.left;
        if (!skipped(child)) return {{child, j}};
      }
    }
    return {};
  }

  Block blockOf(const Tree& tree) const {
    Block block = blockFromTree(m, m_assembly, tree, m_placed);
    block.freedoms = freedomsAt(m, block, m_reference);
    return block;
  }

  /// Takes in neighbouring rings while that removes freedoms; goes back when it does not.
  void widen(Tree& ring, Block& block) const {
    Tree wide = ring;
    while (true) {
      std::vector<BodyIndex> bodies;
      for (const auto& [child, pair] : wide)
        bodies.push_back(child);
      const Tree more = findRing(bodies);
      if (more.empty()) return;
      wide.insert(wide.end(), more.begin(), more.end());
      Block widened = blockOf(wide);
      if (widened.freedoms < block.freedoms) {
        ring = wide;
        block = std::move(widened);
        if (block.freedoms == 0) return;
      }
      if (wide.size() > ring.size() + 24) return; // neighbours that far away do not guide this ring
    }
  }

  /// Neighbours taken in may be looser than what they guide: then what does not move in any freedom
  /// is a block by itself, and the rest is left for later ones.
  void keepGuided(Tree& ring, Block& block) const {
    std::vector<char> still(m.bodies.size(), 0);
    const std::vector<char> moves = movingSteps(m, block, m_reference);
    for (std::size_t k = 0; k < block.steps.size(); ++k)
      still[static_cast<std::size_t>(block.steps[k].child.value)] = !moves[k];
    Tree tree = treeOver(m, still, m_placed);
    if (tree.empty() || tree.size() == ring.size()) return;
    Block guided = blockOf(tree);
    if (guided.freedoms == 0) ring = std::move(tree), block = std::move(guided);
  }

  /// Which blocks must be solved before each block, directly or through others.
  std::vector<std::vector<char>> dependencies() const {
    IndexedVector<BodyIndex, int> by;
    by.assign(m.bodies.size(), -1);
    std::vector<std::vector<char>> all(m_blocks.size(), std::vector<char>(m_blocks.size(), 0));
    for (std::size_t b = 0; b < m_blocks.size(); ++b) {
      for (const auto& step : m_blocks[b].steps)
        by[step.child] = static_cast<int>(b);
      const auto need = [&](BodyIndex body) {
        const int other = by[body];
        if (other < 0 || other == static_cast<int>(b)) return;
        all[b][static_cast<std::size_t>(other)] = 1;
        for (std::size_t k = 0; k < m_blocks.size(); ++k)
          all[b][k] = all[b][k] || all[static_cast<std::size_t>(other)][k];
      };
      for (BodyIndex body : m_blocks[b].needs)
        need(body);
    }
    return all;
  }

  /// A freedom of one block may be taken away by rings of later ones that stand on it; then they
  /// must be solved together. True when two or more blocks have become one.
  bool mergeGuides() {
    if (std::ranges::none_of(m_blocks, [](const Block& b) { return b.freedoms > 0; })) return false;
    const auto needs = dependencies();
    for (std::size_t loose = 0; loose < m_blocks.size(); ++loose) {
      if (m_blocks[loose].freedoms == 0) continue;
      for (std::size_t guide = loose + 1; guide < m_blocks.size(); ++guide) {
        if (!needs[guide][loose] || m_blocks[guide].closing.empty()) continue;
        std::vector<std::size_t> together;
        Tree tree;
        int freedoms = 0;
        for (std::size_t k = loose; k <= guide; ++k) {
          if (k != loose && k != guide && !(needs[k][loose] && needs[guide][k])) continue;
          together.push_back(k);
          tree.insert(tree.end(), m_trees[k].begin(), m_trees[k].end());
          freedoms += m_blocks[k].freedoms;
        }
        // Known beforehand is what stands on none of them.
        std::ranges::fill(m_placed, 0);
        placeBase();
        for (std::size_t k = 0; k < guide; ++k)
          if (k != loose && !needs[k][loose])
            for (const auto& [child, pair] : m_trees[k])
              place(child);
        Block block = blockOf(tree);
        if (block.freedoms >= freedoms) continue;
        std::vector<Tree> trees;
        std::vector<Block> blocks;
        const auto keep = [&](std::size_t k) {
          trees.push_back(std::move(m_trees[k])), blocks.push_back(std::move(m_blocks[k]));
        };
        const auto merged = [&](std::size_t k) {
          return std::ranges::find(together, k) != together.end();
        };
        for (std::size_t k = 0; k < guide; ++k)
          if (!merged(k) && !needs[k][loose]) keep(k);
        trees.push_back(std::move(tree)), blocks.push_back(std::move(block));
        for (std::size_t k = 0; k < m_blocks.size(); ++k)
          if (!merged(k) && (k > guide || needs[k][loose])) keep(k);
        m_trees = std::move(trees), m_blocks = std::move(blocks);
        return true;
      }
    }
    return false;
  }

  const Mechanism& m;
  const Assembly& m_assembly;
  const BodyPoses& m_reference;
  std::vector<Tree> m_trees;
  std::vector<Block> m_blocks;
  std::vector<char> m_placed;
  const std::vector<char>& m_skip;
};

} // namespace

std::vector<Block> splitIntoBlocks(const Mechanism& mechanism, const Assembly& assembly,
                                   const BodyPoses& reference, const std::vector<char>& skip) {
  return Splitter(mechanism, assembly, reference, skip).run();
}

} // namespace hinge
