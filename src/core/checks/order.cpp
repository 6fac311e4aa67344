// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/order.h"
#include "core/checks/evidence.h"

// Order of work: every joint can be made while the hand still reaches it.

namespace hinge {
namespace {

std::string_view doing(const Joint& joint) {
  struct {
    std::string_view operator()(const Glue&) const { return "glue"; }
    std::string_view operator()(const Slot&) const { return "slot together"; }
    std::string_view operator()(const Pivot&) const { return "pin"; }
    std::string_view operator()(const Slide&) const { return "lay as a slide"; }
    std::string_view operator()(const Band&) const { return "tie a band between"; }
    std::string_view operator()(const Film&) const { return "tie a film between"; }
  } words;
  return std::visit(words, joint);
}

std::vector<Finding> run(const CheckInput& in) {
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
  f.detail = doing(in.assembly.joints[order.unreachable.front().front()]);
  f.amount = static_cast<double>(order.unreachable.size()), f.unit = AmountUnit::Count;
  found.push_back(std::move(f));
  return found;
}

} // namespace

const CheckKind& orderCheck() {
  static const CheckKind kind{
      "order", "Every joint within reach",
      "There is an order of work in which each joint can be made before others shut it in", run};
  return kind;
}

} // namespace hinge
