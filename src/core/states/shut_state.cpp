// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/shut_state.h"
#include "core/paper/starting_values.h"
#include <algorithm>
#include <cmath>
#include <functional>

namespace hinge {
namespace {

/// Adds one sheet to every cell whose middle lies in the region (even-odd along each row).
void lay(ThicknessMap& map, const Region& region) {
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
      for (int column = from; column <= to; ++column)
        ++map.sheets[static_cast<std::size_t>(row * map.columns + column)];
    }
  }
}

/// How many limbs lie on one another under a pin, its own limb included, counted from what carries
/// the first.
int limbsUnder(const Assembly& assembly, PanelIndex panel, int deepest = 20) {
  int most = 0;
  for (const Joint& joint : assembly.joints)
    if (const Guide* guide = std::holds_alternative<Slot>(joint) ? nullptr : guideOf(joint);
        guide && guide->second == panel && deepest > 0)
      most = std::max(most, 1 + limbsUnder(assembly, guide->first, deepest - 1));
  return most;
}

/// Heads of pins stand over the paper: the shut card is thicker there, and pads must be as high as
/// limbs and head together.
void addPins(ShutState& state, const Assembly& assembly, double thickness_mm,
             const std::function<Vec2(const Pivot&)>& placeOf) {
  for (const auto& [j, pin] : assembly.every<Pivot>()) {
    const Vec2 at = (placeOf(pin) - state.map.origin) / state.map.cell_mm;
    const int column = std::clamp(static_cast<int>(at.x()), 0, state.map.columns - 1),
              row = std::clamp(static_cast<int>(at.y()), 0, state.map.rows - 1);
    state.thickness_mm = std::max(state.thickness_mm,
                                  state.map.at(column, row) * thickness_mm + starting::kPinHead_mm);
    state.pads_mm = std::max(state.pads_mm, limbsUnder(assembly, pin.second) * thickness_mm +
                                                starting::kPinHead_mm);
  }
}

} // namespace

ShutState shutState(const Motion& motion, const Design& design, double cell_mm) {
  const Assembly& assembly = motion.assembly();
  const Pose shut = motion.shutPose();
  const Iso3 toPage = shut.panels[assembly.root].inverse();
  std::vector<Region> lying;
  Box2 extent;
  for (PanelIndex p : assembly.panels.indices()) {
    if (!shut.placed[p]) continue;
    lying.push_back(mapped(assembly.panels[p].outline, toPage * shut.panels[p]));
    extent.add(boundsOf(lying.back()));
  }
  ShutState state;
  const bool side = design.card.fold == FoldSide::Side;
  state.width_mm = side ? extent.size().x() : extent.size().y();
  state.height_mm = side ? extent.size().y() : extent.size().x();
  state.map.cell_mm = cell_mm;
  state.map.origin = extent.low;
  state.map.columns = static_cast<int>(std::ceil(extent.size().x() / cell_mm));
  state.map.rows = static_cast<int>(std::ceil(extent.size().y() / cell_mm));
  state.map.sheets.assign(
      static_cast<std::size_t>(state.map.columns) * static_cast<std::size_t>(state.map.rows), 0);
  for (const Region& region : lying)
    lay(state.map, region);
  // The gutter is the edge x = 0 of the first page. A fold wraps what lies within its first
  // millimetres.
  constexpr double kAlongGutter_mm = 3;
  for (int row = 0; row < state.map.rows; ++row)
    for (int column = 0; column < state.map.columns; ++column)
      if (const double x = state.map.origin.x() + (column + 0.5) * cell_mm;
          x < 0 && x > -kAlongGutter_mm)
        state.gutterSheets = std::max(state.gutterSheets, state.map.at(column, row) - 2);
  state.gutterRelief_mm = 0.5 * state.gutterSheets * design.cardPaper().thickness_mm;
  const auto thickest = std::ranges::max_element(state.map.sheets);
  if (thickest != state.map.sheets.end()) {
    const auto index = static_cast<int>(thickest - state.map.sheets.begin());
    state.thickestSheets = *thickest;
    const int row = index / state.map.columns, column = index % state.map.columns;
    state.thickestPlace = state.map.origin + cell_mm * Vec2(column + 0.5, row + 0.5);
    state.thickness_mm = state.thickestSheets * design.cardPaper().thickness_mm;
  }
  addPins(state, assembly, design.cardPaper().thickness_mm, [&](const Pivot& pin) {
    return Vec2((toPage * (shut.panels[pin.first] * pin.onFirst.translation())).head<2>());
  });
  return state;
}

} // namespace hinge
