// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/checks/evidence.h"
#include "core/motion/openings.h"
#include "core/motion/unsolved.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <map>

// Joints hold: glue, slots and pins meet at every opening. Glue that holds panels rigidly in two
// ways which do not agree tears; glue that ties pages of the base together locks the card. What is
// at no opening at all cannot be put together.

namespace hinge {
namespace {

/// What ties the pages of a body together: the panels glued to one of them, or else all that is not
/// of the base.
Finding lockedBy(const CheckInput& in, const Body& body) {
  Finding f{"locked", Severity::Spoils};
  std::vector<PanelIndex> pages;
  for (PanelIndex p : body.panels)
    (in.assembly.panels[p].use == PanelUse::Page ? pages.push_back(p) : addPanel(in, p, f));
  for (PanelIndex p : pages)
    addPanel(in, p, f);
  return f;
}

/// Paper gives up to the closure limit.
Severity tornBy(const CheckInput& in, double gap_mm) {
  return gap_mm <= in.assembly.closureLimit_mm ? Severity::Advice : Severity::Spoils;
}

void findLocked(const CheckInput& in, std::vector<Finding>& found) {
  const Mechanism& m = in.motion.mechanism();
  std::map<int, Finding> byBody;
  for (const double opening : openingsToLookAt(in.assembly, kCheckStep_rad)) {
    std::map<int, Iso3> first; // where the first page of each body puts it
    for (const auto& [page, pose] : in.assembly.basePoses(opening)) {
      const BodyIndex body = m.bodyOf[page];
      const Iso3 here = pose * inverseOf(m.inBody[page]);
      const auto [known, isFirst] = first.emplace(body.value, here);
      if (isFirst) continue;
      double gap = 0;
      Vec3 place = Vec3::Zero();
      for (const Vec2& c : in.assembly.panels[page].outline.rim) {
        const Vec3 wanted = pose * lift(c), held = known->second * (m.inBody[page] * lift(c));
        if ((wanted - held).norm() > gap) gap = (wanted - held).norm(), place = wanted;
      }
      if (gap <= in.assembly.closureLimit_mm) continue;
      auto it = byBody.find(body.value);
      if (it == byBody.end()) {
        it = byBody.emplace(body.value, lockedBy(in, m.bodies[body])).first;
        it->second.from_rad = opening;
      }
      Finding& f = it->second;
      f.to_rad = opening;
      if (gap > f.amount) f.amount = gap, f.place = place, f.show_rad = opening;
    }
  }
  for (auto& [body, f] : byBody)
    found.push_back(std::move(f));
}

void findTorn(const CheckInput& in, std::vector<Finding>& found) {
  const double show = 0.5 * (in.motion.low_rad() + in.motion.high_rad());
  const Pose pose = in.motion.poseAt(show);
  for (const Mechanism::Misfit& misfit : in.motion.mechanism().misfits) {
    // Pages that are tied together no longer meet at their own fold; that is "locked".
    const auto isPage = [&](PanelIndex p) { return in.assembly.panels[p].use == PanelUse::Page; };
    if (isPage(misfit.first) && isPage(misfit.second)) continue;
    Finding f{"torn", tornBy(in, misfit.gap_mm)};
    if (f.severity == Severity::Advice) f.detail = "forgiven";
    addPanel(in, misfit.second, f), addPanel(in, misfit.first, f);
    const auto same = std::ranges::find_if(found, [&](const Finding& other) {
      return other.code == f.code && other.owners == f.owners;
    });
    if (same != found.end() && same->amount >= misfit.gap_mm) continue;
    f.amount = misfit.gap_mm, f.to_rad = kPi, f.show_rad = show;
    if (pose.placed[misfit.second]) f.place = pose.panels[misfit.second] * lift(misfit.at);
    if (same != found.end())
      *same = std::move(f);
    else
      found.push_back(std::move(f));
  }
}

/// Joints and folds between what is placed without them: nothing makes their sides meet.
void findParting(const CheckInput& in, std::vector<Finding>& found) {
  const Mechanism& m = in.motion.mechanism();
  std::vector<PairIndex> pairs = unsolvedPairs(in.motion);
  // Folds of the base that turn as they are driven meet where nothing else is between.
  std::erase_if(pairs, [&](PairIndex p) {
    return in.assembly.drives.size() <= 1 && m.pairs[p].fold.valid() &&
           std::ranges::find(in.assembly.drives, m.pairs[p].fold, &Drive::fold) !=
               in.assembly.drives.end();
  });
  if (pairs.empty()) return;
  std::map<PairIndex, Finding> byPair;
  for (const double t : openingsToLookAt(in.assembly, kCheckStep_rad)) {
    const Pose pose = t > 0 ? in.motion.poseAt(t) : in.motion.shutPose();
    for (PairIndex p : pairs) {
      Vec3 place;
      const auto gap = gapOf(in.motion, m.pairs[p], pose, &place);
      if (!gap || *gap < motion::kAskew_mm) continue;
      const auto [at, isNew] = byPair.try_emplace(p, Finding{"torn", Severity::Spoils});
      Finding& f = at->second;
      if (isNew) {
        const auto [first, second] = panelsOf(in.assembly, m.pairs[p]);
        addPanel(in, second, f), addPanel(in, first, f);
        f.from_rad = t, f.detail = m.pairs[p].fold.valid() ? "parting-fold" : "parting";
      }
      f.to_rad = t;
      if (*gap > f.amount) f.amount = *gap, f.place = place, f.show_rad = t;
    }
  }
  for (auto& entry : byPair) {
    Finding& f = entry.second;
    f.severity = tornBy(in, f.amount);
    if (f.severity == Severity::Advice) f.detail = "forgiven";
    const auto known = [&](const Finding& other) {
      return other.elements == f.elements || (other.code == "locked" && f.owners == other.owners);
    };
    if (std::ranges::none_of(found, known)) found.push_back(std::move(f));
  }
}

/// Panels that are placed at no opening although nothing has said why.
void findNowhere(const CheckInput& in, std::vector<Finding>& found) {
  IndexedVector<PanelIndex, char> seen;
  seen.assign(in.assembly.panels.size(), 0);
  const auto look = [&](const Pose& pose) {
    for (PanelIndex p : in.assembly.panels.indices())
      seen[p] = seen[p] || pose.placed[p];
  };
  for (double t : in.motion.nodeOpenings()) {
    if (std::ranges::all_of(seen, [](char c) { return c != 0; })) return;
    look(in.motion.poseAt(t));
  }
  for (PanelIndex p : in.assembly.panels.indices()) {
    if (seen[p]) continue;
    const auto& owner = in.assembly.panels[p].owner;
    const auto named = [&](const Finding& f) {
      return owner ? std::ranges::find(f.owners, *owner) != f.owners.end()
                   : f.elements.front() == "card";
    };
    const bool known = std::ranges::any_of(in.of(shutFlatCheck()), named) ||
                       std::ranges::any_of(in.of(reachCheck()), named);
    if (known || std::ranges::any_of(found, named)) continue;
    // What stands on something that cannot be put together is only a victim of it.
    const auto& lost = in.motion.impossible();
    if (owner && std::ranges::find(lost, *owner) != lost.end()) continue;
    Finding f{"impossible", Severity::Spoils};
    addPanel(in, p, f);
    f.to_rad = kPi, f.amount = 180, f.unit = AmountUnit::Degree, f.show_rad = 0.5 * kPi;
    found.push_back(std::move(f));
  }
}

std::vector<Finding> checkHolds(const CheckInput& in) {
  std::vector<Finding> found;
  findLocked(in, found);
  findTorn(in, found);
  findParting(in, found);
  findNowhere(in, found);
  return found;
}

} // namespace

const CheckKind& holdsCheck() {
  static const CheckKind kind{"holds", checkHolds};
  return kind;
}

} // namespace hinge
