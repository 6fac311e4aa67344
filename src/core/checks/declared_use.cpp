// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/evidence.h"
#include "core/motion/openings.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <map>
#include <set>

// What the maker declares of the card's use holds: it is shown where it opens to; what is pulled
// is pulled by something; and a card that is said not to be shut is told whether it could be.

namespace hinge {
namespace {

/// The base of a leaf that never folds is shown as it stands.
void lookAtDisplay(const CheckInput& in, std::vector<Finding>& found) {
  if (in.assembly.drives.empty()) return;
  const CardBase& card = in.design.card;
  const double past =
      std::max(card.worksFrom_deg - card.display_deg, card.display_deg - card.worksTo_deg);
  constexpr double kSome_deg = 0.5; // as useBetween() leaves around a single opening
  if (past <= kSome_deg) return;
  Finding f{"shown-outside", Severity::Spoils, {"card"}};
  f.amount = past, f.unit = AmountUnit::Degree;
  f.from_rad = in.assembly.low_rad, f.to_rad = in.assembly.high_rad;
  f.show_rad = past == card.worksFrom_deg - card.display_deg ? f.from_rad : f.to_rad;
  f.detail = {"as-it-is", Degrees{card.display_deg}};
  found.push_back(std::move(f));
}

/// A slide that follows the opening while the base still opens is drawn by a band or film, or not
/// at all. Once the base is open the rest of the way is that of a hand.
void lookAtPulls(const CheckInput& in, std::vector<Finding>& found) {
  for (const auto& [j, slide] : in.assembly.every<Slide>()) {
    if (!slide.pull || slide.pull->way_mm == 0) continue;
    if (slide.pull->from_rad >= in.assembly.openBy_rad - kCheckFinest_rad) continue;
    const BodyIndex body = in.motion.mechanism().bodyOf[slide.second];
    const bool drawn = std::ranges::any_of(in.assembly.joints, [&](const Joint& joint) {
      const Tie* tie = tieOf(joint);
      return tie && std::ranges::any_of(tie->panels, [&](PanelIndex p) {
               return in.motion.mechanism().bodyOf[p] == body;
             });
    });
    if (drawn) continue;
    Finding f = findingOn(in, "pulled-by-nothing", Severity::Advice, {slide.second, slide.first});
    f.amount = std::abs(slide.pull->way_mm);
    f.from_rad = slide.pull->from_rad, f.to_rad = slide.pull->to_rad;
    found.push_back(std::move(f));
  }
}

/// A pin or slide that a hand is said to move, and that other joints hold: the hand does nothing.
void lookAtHands(const CheckInput& in, std::vector<Finding>& found) {
  for (const Joint& joint : in.assembly.joints) {
    const Guide* guide = guideOf(joint);
    if (!guide || !guide->byHand || guide->rests) continue;
    if (in.motion.isLoose(guide->second) || in.motion.isLoose(guide->first)) continue;
    Finding f = findingOn(in, "hand-does-nothing", Severity::Advice, {guide->second, guide->first});
    f.amount = 1, f.unit = AmountUnit::Count;
    found.push_back(std::move(f));
  }
}

/// What is to lie over other things has some of them beside it, at one of its pins and slides at
/// least: a bar on two pins is often told the same at both.
void lookAtOrder(const CheckInput& in, std::vector<Finding>& found) {
  using Side = std::pair<PanelIndex, bool>;
  const auto sideOf = [](const Joint& joint) -> std::optional<Side> {
    if (const Glue* glue = std::get_if<Glue>(&joint)) return Side{glue->host, glue->onHostFace()};
    if (const Pivot* pin = std::get_if<Pivot>(&joint)) return Side{pin->first, pin->onFace()};
    if (const Slide* slide = std::get_if<Slide>(&joint)) return Side{slide->first, slide->onFace()};
    return std::nullopt;
  };
  std::map<Side, int> things;
  for (const Joint& joint : in.assembly.joints)
    if (const auto side = sideOf(joint)) ++things[*side];
  std::map<PanelIndex, const Guide*> alone;
  std::set<PanelIndex> lies;
  for (const Joint& joint : in.assembly.joints) {
    const Guide* guide = guideOf(joint);
    if (!guide || guide->over == 0) continue;
    if (things[*sideOf(joint)] > 1)
      lies.insert(guide->second);
    else
      alone.emplace(guide->second, guide);
  }
  for (const auto& [panel, guide] : alone) {
    if (lies.contains(panel)) continue;
    Finding f = findingOn(in, "over-nothing", Severity::Advice, {guide->second, guide->first});
    f.amount = guide->over, f.unit = AmountUnit::Count;
    found.push_back(std::move(f));
  }
}

/// A rule of placement that goes by a line which is gone: the paper lies where it lay last.
void lookAtRules(const CheckInput& in, std::vector<Finding>& found) {
  for (const PlacedByRule& placed : in.assembly.byRule) {
    if (!placed.lost) continue;
    Finding f = findingOn(in, "rule-lost", Severity::Advice, {placed.own, placed.below});
    f.amount = 1, f.unit = AmountUnit::Count;
    f.detail = placed.lost->message;
    found.push_back(std::move(f));
  }
}

/// Whether a card that is used from some opening on could be shut: judged as if it were, what does
/// not fit is told, as advice.
void lookBelow(const CheckInput& in, std::vector<Finding>& found) {
  if (in.design.card.worksFrom_deg <= 0 || in.assembly.drives.empty()) return;
  Design whole = in.design;
  whole.card.worksFrom_deg = 0;
  const Snapshot snapshot(whole);
  const auto motion = snapshot.motion(in.stop);
  if (!motion) return;
  const CheckInput below(snapshot, *motion, in.stop);
  const Finding* worst = nullptr;
  for (const CheckKind* check : {&shutFlatCheck(), &reachCheck(), &holdsCheck()})
    for (const Finding& f : below.of(*check)) {
      const bool belowUse = f.from_rad < in.assembly.low_rad - kCheckFinest_rad;
      if (f.severity != Severity::Spoils || !belowUse) continue;
      const bool worse = !worst || (f.unit == worst->unit && f.amount > worst->amount);
      if (worse) worst = &f;
    }
  if (!worst) return;
  Finding f = *worst;
  f.code = "not-shut-below", f.severity = Severity::Advice, f.detail = {};
  f.proposed.clear(), f.mend.reset();
  f.from_rad = 0, f.to_rad = f.show_rad = in.assembly.low_rad;
  found.push_back(std::move(f));
}

std::vector<Finding> checkDeclaredUse(const CheckInput& in) {
  std::vector<Finding> found;
  lookAtDisplay(in, found);
  lookAtPulls(in, found);
  lookAtHands(in, found);
  lookAtOrder(in, found);
  lookAtRules(in, found);
  lookBelow(in, found);
  return found;
}

} // namespace

const CheckKind& declaredUseCheck() {
  static const CheckKind kind{"declared-use", checkDeclaredUse};
  return kind;
}

} // namespace hinge
