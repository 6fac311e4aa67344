// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/splicing.h"
#include <algorithm>

namespace hinge {
namespace {

/// From the borders of the panel, so that no part of it is a sliver.
constexpr double kFromBorder_mm = 2;
/// By which a tab is narrower on each side, and the room that a cut leaves to folds beside it.
constexpr double kTabInset_mm = 1, kFromFold_mm = 1;

bool onePaper(const std::vector<Region>& parts) {
  return parts.size() == 1 && parts.front().holes.empty();
}

} // namespace

std::vector<Region> between(const Region& region, Eigen::Index axis, double from, double to) {
  const Box2 box = boundsOf(region);
  Vec2 low = box.low - Vec2(1, 1), high = box.high + Vec2(1, 1);
  low[axis] = std::max(low[axis], from), high[axis] = std::min(high[axis], to);
  if (low[axis] >= high[axis]) return {};
  return common(
      region,
      Region{{low.x(), low.y()}, {high.x(), low.y()}, {high.x(), high.y()}, {low.x(), high.y()}});
}

Result<LaidSplice> laidSplice(const Assembly& assembly, const Splice& splice) {
  const PanelIndex p = assembly.findPanel(splice.panel);
  if (!p.valid()) return Error{"splice.no-panel", splice.panel};
  const Panel& panel = assembly.panels[p];
  for (const auto& [g, glue] : assembly.every<Glue>())
    if (glue.tab == p && glue.area.empty()) return Error{"splice.tab", splice.panel};
  const Eigen::Index axis = splice.level ? 1 : 0;
  const Box2 box = boundsOf(panel.outline);
  LaidSplice laid;
  laid.panel = p, laid.cut_mm = box.low[axis] + splice.at_mm;
  const double end = laid.cut_mm + splice.overlap_mm;
  if (splice.overlap_mm < kLeastOverlap_mm || splice.overlap_mm > kMostOverlap_mm ||
      splice.at_mm < kFromBorder_mm || end > box.high[axis] - kFromBorder_mm)
    return Error{{"splice.outside", Millimetres{kFromBorder_mm},
                  Millimetres{box.size()[axis] - kFromBorder_mm - splice.overlap_mm}},
                 splice.panel};
  for (PanelIndex other : assembly.pieces[panel.piece].panels)
    if (other != p && !between(assembly.panels[other].outline, axis, laid.cut_mm - kFromFold_mm,
                               end + kFromFold_mm)
                           .empty())
      return Error{"splice.fold", splice.panel};
  const auto overlap = between(panel.outline, axis, laid.cut_mm, end);
  if (!onePaper(overlap) || between(panel.outline, axis, box.low[axis], laid.cut_mm).size() != 1 ||
      between(panel.outline, axis, laid.cut_mm, box.high[axis]).size() != 1)
    return Error{"splice.opening", splice.panel};
  laid.overlap = overlap.front();
  // Narrower along the cut's own way only: the tab begins at the cut itself.
  const auto inner = offset(panel.outline, -kTabInset_mm);
  const auto tab =
      inner.size() == 1 ? between(inner.front(), axis, laid.cut_mm, end) : std::vector<Region>();
  if (!onePaper(tab)) return Error{"splice.opening", splice.panel};
  laid.tab = tab.front();
  return laid;
}

} // namespace hinge
