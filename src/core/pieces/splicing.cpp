// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/splicing.h"
#include <algorithm>

namespace hinge {
namespace {

/// From the borders of the panel, so that no part of it is a sliver.
constexpr double kFromBorder_mm = 2;
/// By which a tab is narrower on each side, and the room that a cut leaves to folds beside it.
constexpr double kTabInset_mm = 1, kFromFold_mm = 1;
constexpr double kSpeck_mm2 = 0.05;

double areaOf(const std::vector<Region>& regions) {
  double sum = 0;
  for (const Region& region : regions)
    sum += area_mm2(region);
  return sum;
}

Region band(const Box2& box, Eigen::Index axis, double from, double to) {
  Vec2 low = box.low - Vec2(1, 1), high = box.high + Vec2(1, 1);
  low[axis] = from, high[axis] = to;
  return Region{{low.x(), low.y()}, {high.x(), low.y()}, {high.x(), high.y()}, {low.x(), high.y()}};
}

} // namespace

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
  Box2 whole;
  for (PanelIndex other : assembly.pieces[panel.piece].panels)
    whole.add(boundsOf(assembly.panels[other].outline));
  const Region strip = band(whole, axis, laid.cut_mm - kFromFold_mm, end + kFromFold_mm);
  for (PanelIndex other : assembly.pieces[panel.piece].panels)
    if (other != p && areaOf(common(assembly.panels[other].outline, strip)) > kSpeck_mm2)
      return Error{"splice.fold", splice.panel};
  const auto overlap = common(panel.outline, band(whole, axis, laid.cut_mm, end));
  if (overlap.size() != 1 || !overlap.front().holes.empty())
    return Error{"splice.opening", splice.panel};
  laid.overlap = overlap.front();
  // Narrower along the cut's own way only: the tab begins at the cut itself.
  const auto inner = offset(panel.outline, -kTabInset_mm);
  std::vector<Region> tabs;
  for (const Region& part : inner)
    for (Region& one : common(part, band(whole, axis, laid.cut_mm, end)))
      tabs.push_back(std::move(one));
  if (tabs.size() != 1 || !tabs.front().holes.empty()) return Error{"splice.opening", splice.panel};
  laid.tab = tabs.front();
  return laid;
}

} // namespace hinge
