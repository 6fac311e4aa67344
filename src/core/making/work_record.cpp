// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/work_record.h"
#include <algorithm>
#include <fmt/format.h>

namespace hinge {
namespace {

constexpr int kEnoughNotes = 3;
/// A single maker is hardly ever farther off the table than that; more is a pause or a slip.
constexpr double kLeastFactor = 0.25, kMostFactor = 4;

std::string nameOf(const WorkStep& step, const Assembly& assembly) {
  const std::string kind(keyOf(step.kind));
  if (!step.joints.empty()) {
    const auto panels = panelsOf(assembly.joints[step.joints.front()]);
    return kind + ":" + assembly.panels[panels[1]].key + ">" + assembly.panels[panels[0]].key;
  }
  const bool each = step.kind == WorkKind::Dress || step.kind == WorkKind::Splice;
  return each && !step.pieces.empty() ? kind + ":" + assembly.pieces[step.pieces.front()].key
                                      : kind;
}

} // namespace

std::vector<std::string> stepNames(const WorkPlan& plan, const Assembly& assembly) {
  std::vector<std::string> names;
  std::map<std::string, int> used;
  for (const WorkStep& step : plan.steps) {
    std::string name = nameOf(step, assembly);
    if (const int before = used[name]++; before > 0) name += fmt::format("#{}", before + 1);
    names.push_back(std::move(name));
  }
  return names;
}

void OwnTimes::add(const WorkRecord::Took& took) {
  if (!(took.planned_s > 0) || !(took.took_s > 0)) return;
  Sum& sum = kinds[took.kind];
  sum.planned_s += took.planned_s, sum.took_s += took.took_s, ++sum.count;
}

double OwnTimes::factor(WorkKind kind) const {
  const auto found = kinds.find(keyOf(kind));
  if (found == kinds.end() || found->second.count < kEnoughNotes) return 1;
  return std::clamp(found->second.took_s / found->second.planned_s, kLeastFactor, kMostFactor);
}

void timeByOwn(WorkPlan& plan, const OwnTimes& own) {
  for (WorkStep& step : plan.steps)
    step.hands_s *= own.factor(step.kind);
}

} // namespace hinge
