// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/held.h"
#include <algorithm>
#include <functional>

namespace hinge {

bool comesMade(const Assembly& assembly, const Joint& joint) {
  return std::ranges::all_of(panelsOf(joint), [&](PanelIndex p) {
    const auto piece = static_cast<std::size_t>(assembly.panels[p].piece.value);
    return piece < assembly.readyMade.size() && assembly.readyMade[piece];
  });
}

MadeJoints madeAtFirst(const Assembly& assembly) {
  MadeJoints made;
  made.assign(assembly.joints.size(), 0);
  for (JointIndex j : assembly.joints.indices())
    made[j] = comesMade(assembly, assembly.joints[j]);
  return made;
}

Mechanism heldBy(const Assembly& whole, const MadeJoints& made) {
  Assembly part;
  part.panels = whole.panels, part.folds = whole.folds;
  part.drives = whole.drives, part.root = whole.root, part.carried = whole.carried;
  for (Panel& panel : part.panels)
    panel.gluedBy = {}; // joints have other numbers here
  for (JointIndex j : whole.joints.indices())
    if (made[j]) part.addJoint(whole.joints[j]);
  return Mechanism::from(part);
}

std::vector<int> ringNumbers(const Mechanism& m) {
  const std::size_t n = m.bodies.size();
  std::vector<int> ring(n, -1), entered(n, -1), low(n, 0);
  std::vector<char> bridge(m.pairs.size(), 0);
  int clock = 0;
  const auto at = [](auto i) { return static_cast<std::size_t>(i.value); };
  const std::function<void(BodyIndex, PairIndex)> walk = [&](BodyIndex b, PairIndex from) {
    entered[at(b)] = low[at(b)] = clock++;
    for (PairIndex j : m.bodies[b].pairs) {
      if (j == from) continue;
      const BodyIndex next = m.pairs[j].other(b);
      if (entered[at(next)] >= 0) {
        low[at(b)] = std::min(low[at(b)], entered[at(next)]);
        continue;
      }
      walk(next, j);
      low[at(b)] = std::min(low[at(b)], low[at(next)]);
      if (low[at(next)] > entered[at(b)]) bridge[at(j)] = 1;
    }
  };
  for (BodyIndex b : m.bodies.indices())
    if (entered[at(b)] < 0) walk(b, {});
  int next = 0;
  for (BodyIndex start : m.bodies.indices()) {
    if (ring[at(start)] >= 0) continue;
    std::vector<BodyIndex> open{start};
    ring[at(start)] = next;
    while (!open.empty()) {
      const BodyIndex b = open.back();
      open.pop_back();
      for (PairIndex j : m.bodies[b].pairs)
        if (const BodyIndex other = m.pairs[j].other(b); ring[at(other)] < 0 && !bridge[at(j)])
          ring[at(other)] = next, open.push_back(other);
    }
    ++next;
  }
  return ring;
}

} // namespace hinge
