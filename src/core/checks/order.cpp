#include "core/checks/check.h"
#include "core/making/order.h"
#include <algorithm>

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
  // What cannot be put together at all has its own finding.
  if (!in.motion.impossible().empty()) return {};
  std::vector<Finding> found;
  const AssemblyOrder order = assemblyOrder(in.motion, radians(in.design.card.display_deg));
  if (order.unreachable.empty()) return found;
  // One finding for all joints that shut one another in: it is one trouble.
  const Join& main = order.unreachable.front();
  Finding f{"unreachable", Severity::Spoils, {in.assembly.panels[main.second].key, in.assembly.panels[main.first].key}};
  for (const Join& join : order.unreachable) {
    for (PanelIndex p : {join.second, join.first})
      if (const auto& owner = in.assembly.panels[p].owner; owner && std::ranges::find(f.owners, *owner) == f.owners.end()) f.owners.push_back(*owner);
    for (PanelIndex p : {join.second, join.first})
      if (const std::string& key = in.assembly.panels[p].key; std::ranges::find(f.elements, key) == f.elements.end()) f.elements.push_back(key);
  }
  f.detail = doing(main.kind);
  f.amount = static_cast<double>(order.unreachable.size()), f.unit = AmountUnit::Count;
  f.show_rad = std::clamp(radians(in.design.card.display_deg), in.motion.low_rad(), in.motion.high_rad()), f.to_rad = kPi;
  const Pose pose = in.motion.poseAt(f.show_rad);
  if (pose.placed[main.second]) f.place = pose.panels[main.second] * lift(boundsOf(in.assembly.panels[main.second].outline).centre());
  found.push_back(std::move(f));
  return found;
}

} // namespace

const CheckKind& orderCheck() {
  static const CheckKind kind{"order", "Every joint within reach", "There is an order of work in which each joint can be made before others shut it in", run};
  return kind;
}

} // namespace hinge
