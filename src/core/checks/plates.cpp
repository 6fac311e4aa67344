// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/contact/plates.h"
#include "core/checks/evidence.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <map>
#include <set>

// Plates hit: what passes without touching as a drawing does so as paper too, with its layers and
// pads. Panels that pass through one another as drawings are told by "panels-hit", what lies on one
// another in the shut card by its stack.

namespace hinge {
namespace {

std::vector<Slab> slabsOf(const CheckInput& in, const std::vector<LaidOn>& laid) {
  std::vector<Slab> slabs;
  std::map<std::pair<PanelIndex, bool>, double> high; // of the stack on each side
  for (PanelIndex p : in.assembly.panels.indices()) {
    const double thickness = in.assembly.thickness_mm(p);
    high[{p, false}] = high[{p, true}] = 0.5 * thickness;
    // Set back from the edges: folds and cut edges are rounded by about that much.
    for (Region& part : offset(in.assembly.panels[p].outline, -thickness))
      slabs.push_back({p, std::move(part), -0.5 * thickness, 0.5 * thickness});
  }
  std::map<std::pair<PanelIndex, bool>, std::size_t> last;
  std::map<std::pair<PanelIndex, bool>, double> below;
  for (const LaidOn& on : laid) {
    const std::pair side{on.panel, on.onBack};
    // Parts of one layer lie side by side, and toppers' pads on top of all.
    if (last[side] != on.layer || !below.contains(side)) below[side] = high[side];
    last[side] = on.layer;
    const double from = below[side], to = from + on.thickness_mm;
    high[side] = std::max(high[side], to);
    slabs.push_back({on.panel, on.onPiece, on.onBack ? -to : from, on.onBack ? -from : to});
  }
  return slabs;
}

/// Pairs of panels, and structures, whose trouble others tell already.
struct Told {
  std::set<std::pair<std::string, std::string>> pairs;
  std::set<StructureId> structures;

  explicit Told(const CheckInput& in) {
    for (const CheckKind* check : {&panelsHitCheck(), &toppersCheck(), &slotsCheck()})
      for (const Finding& f : in.of(*check))
        for (const std::string& one : f.elements)
          for (const std::string& other : f.elements)
            pairs.insert({one, other});
    for (const CheckKind* check : {&shutFlatCheck(), &reachCheck(), &holdsCheck()})
      for (const Finding& f : in.of(*check))
        structures.insert(f.owners.begin(), f.owners.end());
  }
  bool has(const Panel& a, const Panel& b) const {
    const auto spoilt = [&](const Panel& p) { return p.owner && structures.contains(*p.owner); };
    return pairs.contains({a.key, b.key}) || spoilt(a) || spoilt(b);
  }
};

std::vector<Finding> checkPlates(const CheckInput& in) {
  const auto laid = in.snapshot.laid(in.stop);
  if (!laid) return {};
  PlateOptions options;
  options.only = in.only;
  const std::vector<PlateTouch> touches =
      plateTouches(in.motion, slabsOf(in, *laid), options, in.stop);
  if (touches.empty()) return {};
  const Told told(in);
  std::map<std::vector<StructureId>, Finding> byOwners;
  for (const PlateTouch& touch : touches) {
    const Panel &a = in.assembly.panels[touch.first], &b = in.assembly.panels[touch.second];
    if (told.has(a, b)) continue;
    Finding f = findingOn(in, "plates-hit",
                          touch.depth_mm > kPaperGives_mm ? Severity::Spoils : Severity::Advice,
                          {touch.second, touch.first});
    f.amount = touch.depth_mm, f.place = touch.place, f.show_rad = touch.deepest_rad;
    f.from_rad = touch.from_rad, f.to_rad = touch.to_rad;
    auto owners = f.owners;
    std::ranges::sort(owners);
    const auto [at, isNew] = byOwners.emplace(owners, f);
    if (!isNew && f.amount > at->second.amount) at->second = std::move(f);
  }
  std::vector<Finding> found;
  for (auto& [owners, finding] : byOwners)
    found.push_back(std::move(finding));
  return found;
}

} // namespace

const CheckKind& platesCheck() {
  static const CheckKind kind{"plates", checkPlates};
  return kind;
}

} // namespace hinge
