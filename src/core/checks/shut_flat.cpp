// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/structures/closure.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

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

/// All conditions of a recipe that its sizes break, as one finding: the worst of them tells how
/// far.
std::optional<Finding> outOfStep(const CheckInput& in, const StructureItem& item,
                                 const StructureKind& kind, const Seat& seat) {
  Finding f{"shut-flat", Severity::Spoils, {item.id.text()}, {item.id}};
  ParameterValues values = item.values;
  Mend mend;
  bool curable = true;
  for (const LinearClosure& closure : kind.closures(seat.shutOpening_rad)) {
    const double misfit = std::abs(closure.misfit(item.values));
    if (misfit >= kExactClosure && misfit > f.amount) {
      const bool angle = closure.unit == ParameterUnit::Degree;
      f.amount = misfit, f.unit = angle ? AmountUnit::Degree : AmountUnit::Millimetre;
    }
    if (std::abs(closure.misfit(values)) >= kExactClosure)
      curable = takeUp(item, kind, closure, values, mend) && curable;
  }
  if (f.amount == 0) return std::nullopt;
  f.detail = "stands-off";
  for (const auto& block : in.motion.blocks())
    if (std::ranges::find(block.owners, item.id) != block.owners.end() && block.low_rad > 0)
      f.to_rad = block.low_rad, f.detail = "jams";
  f.show_rad = f.to_rad;
  if (curable) f.proposed = std::move(mend);
  return f;
}

/// Sections of the base's own sheets that the joints decide.
std::optional<Finding> baseOutOfStep(const CheckInput& in) {
  Finding f{"shut-flat", Severity::Spoils, {"card"}};
  for (const auto& block : in.motion.blocks()) {
    if (!block.owners.empty() || block.looseBy >= 0 || block.shutMisfit_mm <= f.amount ||
        block.shutMisfit_mm < std::max(kExactClosure, block.closed_mm))
      continue;
    f.amount = block.shutMisfit_mm, f.detail = block.low_rad > 0 ? "jams" : "stands-off";
    f.to_rad = f.show_rad = block.low_rad;
  }
  return f.amount > 0 ? std::optional(std::move(f)) : std::nullopt;
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
      for (const auto& block : in.motion.blocks()) {
        if (std::ranges::find(block.owners, item.id) == block.owners.end() ||
            block.shutMisfit_mm < std::max(kExactClosure, block.closed_mm))
          continue;
        if (block.looseBy >= 0) continue; // where a loose piece comes to lie is anyone's guess
        Finding f{"shut-flat", Severity::Spoils, {item.id.text()}, {item.id}};
        f.amount = block.shutMisfit_mm, f.detail = block.low_rad > 0 ? "jams" : "stands-off";
        f.to_rad = f.show_rad = block.low_rad;
        found.push_back(std::move(f));
        break; // its other rings are out of step with it
      }
      continue;
    }
    if (auto f = outOfStep(in, item, *kind, *seat)) found.push_back(std::move(*f));
  }
  return found;
}

} // namespace

const CheckKind& shutFlatCheck() {
  static const CheckKind kind{"shut-flat", checkShutFlat};
  return kind;
}

} // namespace hinge
