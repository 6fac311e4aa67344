// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assembly/loose_folds.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <set>

namespace hinge {
namespace {

/// Panels that glue, held folds and the base's drives keep together, and what joins these groups.
class Graph {
public:
  explicit Graph(const Assembly& assembly) : m_assembly(assembly), m_group(assembly.panels.size()) {
    std::iota(m_group.begin(), m_group.end(), 0);
    for (const auto& [j, glue] : assembly.every<Glue>())
      unite(glue.tab, glue.host);
    for (const auto& [page, pose] : assembly.basePoses(0.5 * kPi))
      unite(page, assembly.root);
    for (const Carried& carried : assembly.carried)
      unite(carried.panel, carried.host);
    for (const Fold& fold : assembly.folds)
      if (fold.rest_rad) unite(fold.left, fold.right);
    for (FoldIndex f : assembly.folds.indices())
      addFold(f);
    for (JointIndex j : assembly.joints.indices())
      if (const Guide* guide = guideOf(assembly.joints[j]))
        addEdge(guide->first, guide->second, {}, j);
    m_of.resize(m_group.size());
    for (std::size_t e = 0; e < m_edges.size(); ++e)
      m_of[m_edges[e].a].push_back(e), m_of[m_edges[e].b].push_back(e);
  }

  struct Edge {
    std::size_t a, b;
    std::vector<FoldIndex> folds; ///< none: a joint that guides
    JointIndex joint;
  };
  /// The bridges to paper without the ground.
  std::vector<Edge> bridges() {
    m_seen.assign(m_group.size(), 0);
    m_low = m_seen;
    walk(rootOf(m_assembly.root));
    return m_found;
  }

private:
  std::size_t rootOf(PanelIndex p) {
    auto i = static_cast<std::size_t>(p.value);
    while (m_group[i] != i)
      i = m_group[i] = m_group[m_group[i]];
    return i;
  }
  void unite(PanelIndex a, PanelIndex b) { m_group[rootOf(a)] = rootOf(b); }

  void addEdge(PanelIndex first, PanelIndex second, std::vector<FoldIndex> folds,
               JointIndex joint = {}) {
    const std::size_t a = rootOf(first), b = rootOf(second);
    if (a == b) return;
    if (!folds.empty()) m_hinges[std::minmax(a, b)].push_back(m_edges.size());
    m_edges.push_back({a, b, std::move(folds), joint});
  }
  /// Parts of one line between the same panels are one hinge.
  void addFold(FoldIndex f) {
    const Fold& fold = m_assembly.folds[f];
    const std::size_t a = rootOf(fold.left), b = rootOf(fold.right);
    for (std::size_t e : m_hinges[std::minmax(a, b)]) {
      Edge& edge = m_edges[e];
      const Fold& other = m_assembly.folds[edge.folds.front()];
      const Vec2 along = (other.to - other.from).normalized();
      const bool onePiece =
          m_assembly.panels[fold.left].piece == m_assembly.panels[other.left].piece;
      if (onePiece && std::abs(cross2(along, fold.from - other.from)) < kTouch_mm &&
          std::abs(cross2(along, fold.to - other.from)) < kTouch_mm)
        return edge.folds.push_back(f);
    }
    addEdge(fold.left, fold.right, {f});
  }

  struct Visit {
    std::size_t node, through; ///< the edge by which it was reached
    std::size_t next = 0;
  };
  /// Depth first, without recursion: chains of panels may be long.
  void walk(std::size_t root) {
    int clock = 0;
    std::vector<Visit> open{{root, m_edges.size()}};
    m_seen[root] = m_low[root] = ++clock;
    while (!open.empty()) {
      Visit& here = open.back();
      if (here.next < m_of[here.node].size()) {
        const std::size_t e = m_of[here.node][here.next++];
        if (e == here.through) continue;
        const std::size_t other = m_edges[e].a == here.node ? m_edges[e].b : m_edges[e].a;
        if (m_seen[other]) {
          m_low[here.node] = std::min(m_low[here.node], m_seen[other]);
          continue;
        }
        m_seen[other] = m_low[other] = ++clock;
        open.push_back({other, e});
        continue;
      }
      const Visit done = here;
      open.pop_back();
      if (open.empty()) return;
      int& low = m_low[open.back().node];
      low = std::min(low, m_low[done.node]);
      if (m_low[done.node] == m_seen[done.node]) // nothing beyond reaches back past this edge
        m_found.push_back(m_edges[done.through]);
    }
  }

  const Assembly& m_assembly;
  std::vector<std::size_t> m_group;
  std::vector<Edge> m_edges;
  std::vector<std::vector<std::size_t>> m_of; ///< edges of a group
  /// Edges of folds between two groups.
  std::map<std::pair<std::size_t, std::size_t>, std::vector<std::size_t>> m_hinges;
  std::vector<int> m_seen, m_low;
  std::vector<Edge> m_found;
};

/// What hangs on one side of a fold or joint: all that is joined to it in any way but by that.
std::vector<PanelIndex> beyond(const Assembly& assembly, const Lift& lift, PanelIndex start) {
  IndexedVector<PanelIndex, char> seen;
  seen.assign(assembly.panels.size(), 0);
  std::vector<PanelIndex> found{start};
  seen[start] = 1;
  const auto reach = [&](PanelIndex a, PanelIndex b, PanelIndex here) {
    const PanelIndex next = a == here ? b : b == here ? a : PanelIndex();
    if (next.valid() && !seen[next]) seen[next] = 1, found.push_back(next);
  };
  const auto isIt = [&](const Fold& fold) {
    if (!lift.fold.valid()) return false;
    const Fold& at = assembly.folds[lift.fold]; // parts of one line are one fold
    return std::minmax(fold.left, fold.right) == std::minmax(at.left, at.right);
  };
  for (std::size_t k = 0; k < found.size(); ++k) {
    const PanelIndex here = found[k];
    for (FoldIndex f : assembly.foldsOf(here))
      if (const Fold& fold = assembly.folds[f]; !isIt(fold)) reach(fold.left, fold.right, here);
    for (JointIndex j : assembly.joints.indices())
      if (const Joint& joint = assembly.joints[j]; j != lift.joint && !tieOf(joint))
        reach(panelsOf(joint)[0], panelsOf(joint)[1], here);
  }
  return found;
}

/// A joint that nothing but a hand moves rests where its maker says.
void restByHand(Assembly& assembly, JointIndex j) {
  Joint& joint = assembly.joints[j];
  Pivot* pivot = std::get_if<Pivot>(&joint);
  Slide* slide = std::get_if<Slide>(&joint);
  Guide* guide = pivot ? static_cast<Guide*>(pivot) : slide;
  if (!guide || !guide->byHand) return;
  guide->rests = true;
  assembly.lifts.push_back({{},
                            j,
                            (*guide->byHand)[0],
                            (*guide->byHand)[1],
                            {},
                            true,
                            slide != nullptr,
                            guide->handStep});
}

} // namespace

std::optional<Lift> foldingOf(const Assembly& assembly, PanelIndex panel) {
  for (FoldIndex f : assembly.foldsOf(panel)) {
    const Fold& fold = assembly.folds[f];
    if (!fold.hangs) continue;
    Lift lift{f, {}, *fold.rest_rad, *fold.rest_rad, {}};
    lift.secondMoves = fold.right == panel;
    lift.panels = beyond(assembly, lift, panel);
    if (std::ranges::find(lift.panels, assembly.root) == lift.panels.end()) return lift;
  }
  return std::nullopt;
}

void settleLooseFolds(Assembly& assembly) {
  for (const auto& bridge : Graph(assembly).bridges()) {
    if (bridge.joint.valid()) restByHand(assembly, bridge.joint);
    for (FoldIndex f : bridge.folds) {
      Fold& fold = assembly.folds[f];
      if (fold.shutKnown) continue; // its recipe has a closed form for it
      fold.rest_rad = fold.start_rad.value_or(0), fold.hangs = true;
      fold.shutKnown = true, fold.shutAngle_rad = *fold.rest_rad;
    }
  }
  std::erase_if(assembly.lifts, [&](Lift& lift) {
    if (lift.poses) return false; // what moves is known
    const auto ends = lift.fold.valid() ? std::array{assembly.folds[lift.fold].left,
                                                     assembly.folds[lift.fold].right}
                                        : panelsOf(assembly.joints[lift.joint]);
    for (bool second : {true, false}) {
      lift.panels = beyond(assembly, lift, ends[second ? 1 : 0]);
      lift.secondMoves = second;
      if (std::ranges::find(lift.panels, assembly.root) == lift.panels.end()) return false;
    }
    return true; // held on both sides: there is nothing to lift
  });
  // Folds in one row lift the same paper: they go together, as one.
  std::set<std::pair<PanelIndex, PanelIndex>> lifted;
  std::erase_if(assembly.lifts, [&](const Lift& lift) {
    if (lift.poses || !lift.fold.valid()) return false;
    const Fold& fold = assembly.folds[lift.fold];
    return !lifted.insert(std::minmax(fold.left, fold.right)).second;
  });
}

} // namespace hinge
