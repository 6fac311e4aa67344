// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assembly/loose_folds.h"
#include "core/checks/evidence.h"
#include "core/structures/closure.h"
#include "core/structures/registry.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <map>

// Shuts flat: the exact linear conditions of the widths and angles, never "the solver got near". A
// structure that breaks one jams just before the card is shut (panels too long for their way) or
// stands off it.

namespace hinge {
namespace {

/// Takes up the misfit of a closure by one size that gives; false when none can.
bool takeUp(const StructureItem& item, const StructureKind& kind, const LinearClosure& closure,
            ParameterValues& values, Mend& mend) {
  const double misfit = closure.misfit(values);
  for (const LinearClosure::Term& term : closure.terms) {
    const ParameterSpec* spec = findSpec(kind.parameters, term.key);
    const double from = values.find(term.key)->second, to = from - misfit / term.coefficient;
    if (spec->role == ParameterRole::Held || to < spec->least || to > spec->most) continue;
    values[std::string(term.key)] = to;
    const auto known = std::ranges::find(mend.edits, term.key, &MendEdit::key);
    if (known != mend.edits.end())
      known->to = to;
    else
      mend.edits.push_back({item.id, std::string(term.key), spec->unit, from, to});
    return true;
  }
  return false;
}

/// What comes of a loop that misses closing: nothing, advice where paper gives as much, or a card
/// that is spoiled.
std::optional<Severity> whatComesOf(const CheckInput& in, double gap_mm) {
  if (gap_mm < motion::kAskew_mm) return std::nullopt;
  return gap_mm <= in.assembly.closureLimit_mm ? Severity::Advice : Severity::Spoils;
}

/// What stops the structure short of the shut card, if anything does; from whichever of its rings.
double jamsAt_rad(const CheckInput& in, StructureId id) {
  for (const auto& block : in.motion.blocks())
    if (std::ranges::find(block.owners, id) != block.owners.end() && block.low_rad > 0)
      return block.low_rad;
  return 0;
}

/// All conditions of a recipe that its sizes break, as one finding: the worst of them tells how
/// far.
std::optional<Finding> outOfStep(const CheckInput& in, const StructureItem& item,
                                 const StructureKind& kind, const Seat& seat) {
  Finding f{"shut-flat", Severity::Spoils, {item.id.text()}, {item.id}};
  ParameterValues values = item.values;
  Mend mend;
  bool curable = true;
  double most_mm = 0;
  for (const LinearClosure& closure : kind.closures(seat.shutOpening_rad)) {
    const double misfit = misfit_mm(closure, item.values);
    if (misfit >= motion::kAskew_mm && misfit > most_mm) {
      const bool angle = closure.unit == ParameterUnit::Degree;
      most_mm = misfit, f.amount = std::abs(closure.misfit(item.values));
      f.unit = angle ? AmountUnit::Degree : AmountUnit::Millimetre;
    }
    if (std::abs(closure.misfit(values)) >= kExactClosure)
      curable = takeUp(item, kind, closure, values, mend) && curable;
  }
  const auto severity = whatComesOf(in, most_mm);
  if (!severity) return std::nullopt;
  f.to_rad = f.show_rad = jamsAt_rad(in, item.id);
  f.severity = f.to_rad > 0 ? Severity::Spoils : *severity;
  f.detail = f.severity == Severity::Advice ? "forgiven" : f.to_rad > 0 ? "jams" : "stands-off";
  if (curable) f.proposed.push_back(std::move(mend));
  return f;
}

/// Of rings: the one that misses closing by most, if that is to be told.
std::optional<Finding> ringsOpen(const CheckInput& in, Finding f, const auto& isMeant) {
  double most = 0;
  for (const auto& block : in.motion.blocks()) {
    if (!isMeant(block) || block.looseBy >= 0) continue; // where loose paper lies is anyone's guess
    const double gap = std::max(block.shutMisfit_mm, block.gap_mm);
    if (gap <= most) continue;
    most = gap, f.to_rad = f.show_rad = block.low_rad;
  }
  const auto severity = whatComesOf(in, most);
  if (!severity) return std::nullopt;
  f.amount = most;
  f.severity = f.to_rad > 0 ? Severity::Spoils : *severity;
  f.detail = f.severity == Severity::Advice ? "forgiven" : f.to_rad > 0 ? "jams" : "stands-off";
  return f;
}

/// Of a recipe whose conditions hold: where its rings open on the way, by what paper gives.
std::optional<Finding> ringsGiven(const CheckInput& in, StructureId id) {
  Finding f{"shut-flat", Severity::Advice, {id.text()}, {id}};
  for (const auto& block : in.motion.blocks())
    if (std::ranges::find(block.owners, id) != block.owners.end() && block.looseBy < 0)
      f.amount = std::max(f.amount, block.gap_mm);
  f.to_rad = in.motion.high_rad(), f.show_rad = in.motion.high_rad(), f.detail = "forgiven";
  return f.amount >= motion::kAskew_mm ? std::optional(std::move(f)) : std::nullopt;
}

/// Sections of the base's own sheets that the joints decide.
std::optional<Finding> baseOutOfStep(const CheckInput& in) {
  return ringsOpen(in, {"shut-flat", Severity::Spoils, {"card"}},
                   [](const Motion::BlockReport& block) { return block.owners.empty(); });
}

/// Panels that a hand can lay flat: they hang on a fold, or are lifted past where it is flat.
IndexedVector<PanelIndex, char> foldableByHand(const Assembly& assembly) {
  IndexedVector<PanelIndex, char> can;
  can.assign(assembly.panels.size(), 0);
  const auto mark = [&](const Lift& lift) {
    for (PanelIndex p : lift.panels)
      can[p] = 1;
  };
  for (const Lift& lift : assembly.lifts)
    if (lift.fold.valid()) mark(lift);
  for (const Fold& fold : assembly.folds)
    for (PanelIndex p : {fold.left, fold.right})
      if (const auto lift = fold.hangs ? foldingOf(assembly, p) : std::nullopt) mark(*lift);
  return can;
}

/// What is held at an angle for ever does not lie down when the card is shut on it. One finding for
/// all that is held together.
void findStanding(const CheckInput& in, std::vector<Finding>& found) {
  const Pose shut = in.motion.shutPose();
  const Iso3 toPage = inverseOf(shut.panels[in.assembly.root]);
  const auto byHand = foldableByHand(in.assembly);
  std::map<BodyIndex, Finding> byBody;
  for (PanelIndex p : in.assembly.panels.indices()) {
    if (!shut.placed[p] || in.motion.isLoose(p) || byHand[p]) continue;
    for (const Vec2& corner : in.assembly.panels[p].outline.rim) {
      const Vec3 there = shut.panels[p] * lift(corner);
      const double off = std::abs((toPage * there).z());
      if (off <= in.assembly.closureLimit_mm) continue;
      Finding& f = byBody[in.motion.mechanism().bodyOf[p]];
      if (off <= f.amount) continue;
      f = Finding{"stands-in-shut", Severity::Spoils};
      addPanel(in, p, f);
      f.amount = off, f.place = there;
    }
  }
  for (auto& entry : byBody) {
    Finding& f = entry.second;
    const bool known = std::ranges::any_of(
        found, [&](const Finding& other) { return !f.owners.empty() && other.owners == f.owners; });
    if (!known) found.push_back(std::move(f));
  }
}

std::vector<Finding> checkShutFlat(const CheckInput& in) {
  std::vector<Finding> found;
  if (!in.motion.shuts()) return found; // never lies flat, and is not meant to
  if (auto f = baseOutOfStep(in)) found.push_back(std::move(*f));
  for (const StructureItem& item : in.design.structures) {
    const StructureKind* kind = findStructureKind(item.kind);
    const Seat* seat = in.assembly.findSeat(item.seat);
    if (ringsDecide(item, *seat)) {
      // What does not fit its host because that stands off is only a victim of it.
      const auto hosts = hostsOf(item);
      if (std::ranges::any_of(found, [&](const Finding& f) {
            return !f.owners.empty() && std::ranges::find(hosts, f.owners.front()) != hosts.end();
          }))
        continue;
      const auto isOwn = [&](const Motion::BlockReport& block) {
        return std::ranges::find(block.owners, item.id) != block.owners.end();
      };
      if (auto f =
              ringsOpen(in, {"shut-flat", Severity::Spoils, {item.id.text()}, {item.id}}, isOwn))
        found.push_back(std::move(*f));
      continue;
    }
    if (auto f = outOfStep(in, item, *kind, *seat))
      found.push_back(std::move(*f));
    else if (auto open = ringsGiven(in, item.id))
      found.push_back(std::move(*open)); // taut before the end, by no more than paper gives
  }
  findStanding(in, found);
  return found;
}

} // namespace

const CheckKind& shutFlatCheck() {
  static const CheckKind kind{"shut-flat", checkShutFlat};
  return kind;
}

} // namespace hinge
