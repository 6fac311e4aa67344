// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/order.h"
#include "core/checks/evidence.h"

// Order of work: every joint can be made while the hand still reaches it.

namespace hinge {
namespace {

std::vector<Finding> checkOrder(const CheckInput& in) {
  std::vector<Finding> found;
  const auto worked = in.snapshot.order(in.stop);
  // What cannot be put together at all has its own finding.
  if (!worked || worked->unreachable.empty()) return found;
  const AssemblyOrder& order = *worked;
  // One finding for all joints that shut one another in: it is one trouble.
  std::vector<PanelIndex> panels;
  for (const JointGroup& group : order.unreachable) {
    const auto [there, joins] = panelsOf(in.assembly.joints[group.front()]);
    panels.insert(panels.end(), {joins, there});
  }
  Finding f = findingOn(in, "unreachable", Severity::Spoils, panels);
  f.detail =
      "joint." + std::string(jointKey(in.assembly.joints[order.unreachable.front().front()]));
  f.amount = static_cast<double>(order.unreachable.size()), f.unit = AmountUnit::Count;
  found.push_back(std::move(f));
  return found;
}

} // namespace

const CheckKind& orderCheck() {
  static const CheckKind kind{"order", checkOrder};
  return kind;
}

} // namespace hinge
