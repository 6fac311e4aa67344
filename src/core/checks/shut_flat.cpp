#include "core/checks/check.h"
#include "core/structures/closure.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

// Shuts flat: the exact linear conditions of the widths and angles, never "the solver got near". A structure that breaks
// one jams just before the card is shut (panels too long for their way) or stands off it.

namespace hinge {
namespace {

std::optional<Mend> mendFor(const StructureItem& item, const StructureKind& kind, const LinearClosure& closure, double misfit) {
  for (const LinearClosure::Term& term : closure.terms) {
    const ParameterSpec* spec = findSpec(kind.parameters, term.key);
    const double from = item.values.find(term.key)->second, to = from - misfit / term.coefficient;
    if (spec->role == ParameterRole::Held || to < spec->least || to > spec->most) continue;
    return Mend{{{item.id, std::string(term.key), spec->unit, from, to}}};
  }
  return std::nullopt;
}

std::vector<Finding> run(const CheckInput& in) {
  std::vector<Finding> found;
  for (const StructureItem& item : in.design.structures) {
    const StructureKind* kind = findStructureKind(item.kind);
    const Seat* seat = in.assembly.findSeat(item.seat);
    if (ringsDecide(item, *seat)) {
      // What does not fit its host because that stands off is only a victim of it.
      const auto hosts = hostsOf(item);
      if (std::ranges::any_of(found, [&](const Finding& f) { return std::ranges::find(hosts, f.owners.front()) != hosts.end(); })) continue;
      for (const auto& block : in.motion.blocks()) {
        if (std::ranges::find(block.owners, item.id) == block.owners.end() || block.shutMisfit_mm < std::max(kExactClosure, block.closed_mm)) continue;
        if (block.looseBy >= 0) continue; // where a loose piece comes to lie is anyone's guess
        Finding f{"shut-flat", Severity::Spoils, {item.id.text()}, {item.id}};
        f.amount = block.shutMisfit_mm, f.detail = block.low_rad > 0 ? "jams" : "stands-off";
        f.to_rad = f.show_rad = block.low_rad;
        found.push_back(std::move(f));
        break; // its other rings are out of step with it
      }
      continue;
    }
    for (const LinearClosure& closure : kind->closures(seat->shutOpening_rad)) {
      const double misfit = closure.misfit(item.values);
      if (std::abs(misfit) < kExactClosure) continue;
      Finding f{"shut-flat", Severity::Spoils, {item.id.text()}, {item.id}};
      f.amount = std::abs(misfit);
      f.unit = closure.unit == ParameterUnit::Degree ? AmountUnit::Degree : AmountUnit::Millimetre;
      f.detail = "stands-off";
      for (const auto& block : in.motion.blocks())
        if (std::ranges::find(block.owners, item.id) != block.owners.end() && block.low_rad > 0) f.to_rad = block.low_rad, f.detail = "jams";
      f.show_rad = f.to_rad;
      f.mend = mendFor(item, *kind, closure, misfit);
      found.push_back(std::move(f));
    }
  }
  return found;
}

} // namespace

const CheckKind& shutFlatCheck() {
  static const CheckKind kind{"shut-flat", "Shuts flat", "Widths and angles meet the exact condition for lying flat in the shut card", run};
  return kind;
}

} // namespace hinge
