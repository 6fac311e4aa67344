// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/order.h"
#include "core/checks/evidence.h"

// Order of work: every joint can be made while the hand still reaches it.

namespace hinge {
namespace {

std::string_view doing(JoinKind kind) {
  switch (kind) {
  case JoinKind::Glue: return "glue";
  case JoinKind::Slot: return "slot together";
  case JoinKind::Pivot: return "pin";
  case JoinKind::Slide: return "lay as a slide";
  case JoinKind::Band: return "tie a band between";
  }
  return "";
}

std::vector<Finding> run(const CheckInput& in) {
  std::vector<Finding> found;
  const auto worked = in.snapshot.order(in.stop);
  // What cannot be put together at all has its own finding.
  if (!worked || worked->unreachable.empty()) return found;
  const AssemblyOrder& order = *worked;
  // One finding for all joints that shut one another in: it is one trouble.
  std::vector<PanelIndex> panels;
  for (const Join& join : order.unreachable)
    panels.insert(panels.end(), {join.second, join.first});
  Finding f = findingOn(in, "unreachable", Severity::Spoils, panels);
  f.detail = doing(order.unreachable.front().kind);
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
