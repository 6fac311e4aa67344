// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/shut_state.h"
#include "core/paper/starting_values.h"
#include <algorithm>
#include <cmath>
#include <functional>

namespace hinge {
namespace {

/// Adds a sheet (pads are none) to every cell whose middle lies in the region (even-odd along each
/// row).
void lay(ThicknessMap& map, const Region& region, double thickness_mm, bool isSheet) {
  const Box2 box = boundsOf(region);
  const int first =
      std::max(0, static_cast<int>(std::floor((box.low.y() - map.origin.y()) / map.cell_mm)));
  const int last = std::min(
      map.rows - 1, static_cast<int>(std::floor((box.high.y() - map.origin.y()) / map.cell_mm)));
  const std::vector<Edge> edges = edgesOf(region);
  std::vector<double> cuts;
  for (int row = first; row <= last; ++row) {
    const double y = map.origin.y() + (row + 0.5) * map.cell_mm;
    cuts.clear();
    for (const auto& [a, b] : edges) {
      if ((a.y() > y) != (b.y() > y))
        cuts.push_back(a.x() + (b.x() - a.x()) * (y - a.y()) / (b.y() - a.y()));
    }
    std::ranges::sort(cuts);
    for (std::size_t k = 0; k + 1 < cuts.size(); k += 2) {
      const int from =
          std::max(0, static_cast<int>(std::ceil((cuts[k] - map.origin.x()) / map.cell_mm - 0.5)));
      const int to = std::min(
          map.columns - 1,
          static_cast<int>(std::ceil((cuts[k + 1] - map.origin.x()) / map.cell_mm - 0.5)) - 1);
      for (int column = from; column <= to; ++column) {
        const auto cell = static_cast<std::size_t>(row * map.columns + column);
        map.high_mm[cell] += thickness_mm;
        if (isSheet) ++map.sheets[cell];
      }
    }
  }
}

/// How thick the limbs are that lie on one another under a pin, its own limb included, counted from
/// what carries the first.
double limbsUnder_mm(const Assembly& assembly, PanelIndex panel, int deepest = 20) {
  double most = 0;
  for (const Joint& joint : assembly.joints)
    if (const Guide* guide = std::holds_alternative<Slot>(joint) ? nullptr : guideOf(joint);
        guide && guide->second == panel && deepest > 0)
      most = std::max(most, assembly.thickness_mm(panel) +
                                limbsUnder_mm(assembly, guide->first, deepest - 1));
  return most;
}

/// Heads of pins stand over the paper: the shut card is thicker there, and pads must be as high as
/// limbs and head together.
void addPins(ShutState& state, const Assembly& assembly,
             const std::function<Vec2(const Pivot&)>& placeOf) {
  for (const auto& [j, pin] : assembly.every<Pivot>()) {
    const Vec2 at = (placeOf(pin) - state.map.origin) / state.map.cell_mm;
    const int column = std::clamp(static_cast<int>(at.x()), 0, state.map.columns - 1),
              row = std::clamp(static_cast<int>(at.y()), 0, state.map.rows - 1);
    state.thickness_mm =
        std::max(state.thickness_mm, state.map.highAt_mm(column, row) + starting::kPinHead_mm);
    state.pads_mm =
        std::max(state.pads_mm, limbsUnder_mm(assembly, pin.second) + starting::kPinHead_mm);
  }
}

} // namespace

namespace {

/// A sheet as it lies in the shut card, in the flat frame of the first page.
struct LaidOnPage {
  Region region;
  StackedSheet sheet;
};

std::vector<LaidOnPage> everythingThatLies(const Assembly& assembly, const Pose& shut,
                                           std::span<const LaidOn> laid) {
  const Iso3 toPage = inverseOf(shut.panels[assembly.root]);
  std::vector<LaidOnPage> lying;
  for (PanelIndex p : assembly.panels.indices()) {
    if (!shut.placed[p]) continue;
    lying.push_back(
        {mapped(assembly.panels[p].outline, toPage * shut.panels[p]),
         {p, assembly.pieces[assembly.panels[p].piece].paper, false, assembly.thickness_mm(p)}});
  }
  for (const LaidOn& on : laid)
    if (shut.placed[on.panel])
      lying.push_back({mapped(on.onPiece, toPage * shut.panels[on.panel]),
                       {on.panel, on.paper, true, on.thickness_mm}});
  return lying;
}

/// A sum of thicknesses without what summing does to its last digits.
double withoutHair(double mm) {
  constexpr double kFinest = 1e9;
  return std::round(mm * kFinest) / kFinest;
}

/// What lies along the gutter besides the pages: sheets, and how high.
void measureGutter(ShutState& state, const Assembly& assembly) {
  // The gutter is the edge x = 0 of the first page. A fold wraps what lies within its first
  // millimetres.
  constexpr double kAlongGutter_mm = 3;
  double high = 0;
  for (int row = 0; row < state.map.rows; ++row)
    for (int column = 0; column < state.map.columns; ++column)
      if (const double x = state.map.origin.x() + (column + 0.5) * state.map.cell_mm;
          x < 0 && x > -kAlongGutter_mm) {
        state.gutterSheets = std::max(state.gutterSheets, state.map.at(column, row) - 2);
        high = std::max(high, state.map.highAt_mm(column, row) -
                                  2 * assembly.thickness_mm(assembly.root));
      }
  state.gutterRelief_mm = 0.5 * withoutHair(high);
}

} // namespace

Box2 flatLeaves(const Assembly& assembly) {
  Box2 flat;
  for (const auto& [page, pose] : assembly.basePoses(0))
    flat.add(boundsOf(assembly.panels[page].outline));
  return flat;
}

Box2 shutLeaves(const Assembly& assembly) {
  Box2 shut;
  const auto pages = assembly.basePoses(0);
  for (const auto& [page, pose] : pages)
    shut.add(
        boundsOf(mapped(assembly.panels[page].outline, inverseOf(pages.front().second) * pose)));
  return shut;
}

ShutState shutState(const Motion& motion, const Design& design, std::span<const LaidOn> laid,
                    double cell_mm) {
  const Assembly& assembly = motion.assembly();
  const Pose shut = motion.shutPose();
  const Iso3 toPage = inverseOf(shut.panels[assembly.root]);
  const std::vector<LaidOnPage> lying = everythingThatLies(assembly, shut, laid);
  Box2 extent;
  for (const LaidOnPage& one : lying)
    extent.add(boundsOf(one.region));
  ShutState state;
  const bool side = design.card.fold == FoldSide::Side;
  state.width_mm = side ? extent.size().x() : extent.size().y();
  state.height_mm = side ? extent.size().y() : extent.size().x();
  state.map.cell_mm = cell_mm;
  state.map.origin = extent.low;
  state.map.columns = static_cast<int>(std::ceil(extent.size().x() / cell_mm));
  state.map.rows = static_cast<int>(std::ceil(extent.size().y() / cell_mm));
  const auto cells =
      static_cast<std::size_t>(state.map.columns) * static_cast<std::size_t>(state.map.rows);
  state.map.sheets.assign(cells, 0), state.map.high_mm.assign(cells, 0);
  for (const LaidOnPage& one : lying)
    lay(state.map, one.region, one.sheet.thickness_mm, !one.sheet.paper.empty());
  measureGutter(state, assembly);
  const auto thickest = std::ranges::max_element(state.map.high_mm);
  if (thickest != state.map.high_mm.end()) {
    const auto index = static_cast<int>(thickest - state.map.high_mm.begin());
    const int row = index / state.map.columns, column = index % state.map.columns;
    state.thickestSheets = state.map.at(column, row);
    state.thickestPlace = state.map.origin + cell_mm * Vec2(column + 0.5, row + 0.5);
    for (const LaidOnPage& one : lying)
      if (contains(one.region, state.thickestPlace)) {
        state.stack.push_back(one.sheet);
        state.thickness_mm += one.sheet.thickness_mm;
      }
  }
  state.thickness_mm = withoutHair(state.thickness_mm);
  addPins(state, assembly, [&](const Pivot& pin) {
    return Vec2((toPage * (shut.panels[pin.first] * pin.onFirst.translation())).head<2>());
  });
  return state;
}

} // namespace hinge
