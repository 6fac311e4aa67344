// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/practice.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kBeyond_mm = 8;

/// How far everything that stands on the pages reaches from the gutter and along it, shut.
std::optional<Vec2> reachOf(const Motion& motion) {
  if (!motion.shuts()) return std::nullopt;
  const Assembly& assembly = motion.assembly();
  const Pose shut = motion.shutPose();
  const Iso3 toRoot = inverseOf(shut.panels[assembly.root]);
  Box2 reach;
  for (PanelIndex p : assembly.panels.indices()) {
    if (!assembly.panels[p].owner || !shut.placed[p]) continue;
    for (const Vec2& corner : assembly.panels[p].outline.rim)
      reach.add((toRoot * (shut.panels[p] * lift(corner))).head<2>().cwiseAbs());
  }
  return reach.empty() ? std::nullopt : std::optional(reach.high);
}

} // namespace

Result<Design> practiceOf(const Design& design, const std::set<StructureId>& wanted,
                          std::stop_token stop) {
  Design some = design;
  for (const StructureItem& item : design.structures) {
    if (!some.find(item.id)) continue;
    const auto carries = standingOn(design, item.id);
    if (std::ranges::any_of(carries, [&](StructureId id) { return wanted.contains(id); })) continue;
    auto less = removeStructure(some, item.id);
    if (!less) return less.error();
    some = std::move(less).value();
  }
  if (some.structures.empty()) return Error{"practice.nothing", ""};
  some.dressing = {};
  const auto whole = analyse(some, stop);
  if (!whole) return whole.error();
  if (some.card.kind != "single-fold") return some;
  const auto reach = reachOf(*whole->motion);
  if (!reach) return some;
  Design small = some;
  const double depth = std::ceil(reach->x() + kBeyond_mm),
               length = std::ceil(reach->y() + kBeyond_mm);
  double& across = small.card.fold == FoldSide::Side ? small.card.width_mm : small.card.height_mm;
  double& along = small.card.fold == FoldSide::Side ? small.card.height_mm : small.card.width_mm;
  across = std::min(across, depth), along = std::min(along, length);
  const auto then = analyse(small, stop);
  return then && then->complete && then->verdict != Verdict::Spoiled ? small : some;
}

} // namespace hinge
