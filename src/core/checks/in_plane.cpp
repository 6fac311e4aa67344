// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/in_plane.h"
#include "core/checks/evidence.h"
#include <algorithm>
#include <map>
#include <set>

// Passes in its plane: sheets that lie on one another have an order that their joints, folds and
// motion allow. Where there is none one passes through the other, which the search for crossings of
// planes cannot see.

namespace hinge {
namespace {

constexpr double kTouching_mm = 0.2; ///< shallower is paper that touches

/// Structures whose trouble others tell already: where their paper goes follows from that.
std::set<StructureId> spoiltBefore(const CheckInput& in) {
  std::set<StructureId> all;
  for (const CheckKind* check : {&shutFlatCheck(), &reachCheck(), &holdsCheck()})
    for (const Finding& f : in.of(*check))
      if (f.severity == Severity::Spoils) all.insert(f.owners.begin(), f.owners.end());
  return all;
}

/// Pairs that are told to cross, in whatever way.
std::set<std::pair<std::string, std::string>> toldPairs(const CheckInput& in) {
  std::set<std::pair<std::string, std::string>> all;
  for (const CheckKind* check : {&panelsHitCheck(), &gluedSideCheck(), &feetCheck(), &limbsCheck(),
                                 &liftsCheck(), &pocketsCheck(), &toppersCheck()})
    for (const Finding& f : in.of(*check))
      for (const std::string& one : f.elements)
        for (const std::string& other : f.elements)
          all.insert({one, other});
  return all;
}

/// Each two once, however many openings show it.
void tellInTurn(const CheckInput& in, const InPlaneReport& report, std::vector<Finding>& found) {
  std::set<std::pair<PanelIndex, PanelIndex>> told;
  for (const HandsInTurn& both : report.inTurn) {
    if (!told.insert(std::minmax(both.one, both.other)).second) continue;
    Finding f = findingOn(in, "hands-in-turn", Severity::Advice, {both.one, both.other});
    f.amount = 1, f.unit = AmountUnit::Count;
    found.push_back(std::move(f));
  }
}

std::vector<Finding> checkInPlane(const CheckInput& in) {
  std::vector<Finding> found;
  const auto looked = in.inPlane();
  if (!looked) return found; // stopped
  const InPlaneReport& report = *looked;
  if (!report.decided) {
    Finding f{"order-open", Severity::Spoils, {"card"}};
    f.amount = 1, f.unit = AmountUnit::Count;
    found.push_back(std::move(f));
  }
  tellInTurn(in, report, found);
  if (report.hits.empty()) return found;
  const auto spoilt = spoiltBefore(in);
  const auto told = toldPairs(in);
  std::map<std::vector<StructureId>, Finding> byOwners;
  for (const InPlaneHit& hit : report.hits) {
    const Panel &a = in.assembly.panels[hit.first], &b = in.assembly.panels[hit.second];
    const auto isSpoilt = [&](const Panel& p) { return p.owner && spoilt.contains(*p.owner); };
    if (hit.depth_mm <= kTouching_mm || isSpoilt(a) || isSpoilt(b) || told.contains({a.key, b.key}))
      continue;
    Finding f{hit.byHand ? "lift-hits" : "panels-hit", Severity::Spoils};
    addPanel(in, hit.first, f), addPanel(in, hit.second, f);
    f.amount = hit.depth_mm, f.place = hit.place, f.detail = "in-plane";
    f.from_rad = hit.from_rad, f.to_rad = hit.to_rad, f.show_rad = hit.at_rad;
    auto owners = f.owners;
    std::ranges::sort(owners);
    const auto [at, isNew] = byOwners.emplace(owners, f);
    if (isNew) continue;
    Finding& known = at->second;
    const double from = std::min(known.from_rad, f.from_rad), to = std::max(known.to_rad, f.to_rad);
    if (f.amount > known.amount) known = std::move(f);
    known.from_rad = from, known.to_rad = to;
  }
  for (auto& [owners, finding] : byOwners)
    found.push_back(std::move(finding));
  return found;
}

} // namespace

const CheckKind& inPlaneCheck() {
  static const CheckKind kind{"in-plane", checkInPlane};
  return kind;
}

} // namespace hinge
