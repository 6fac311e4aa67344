// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/closure.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

namespace hinge {

double shutGap_mm(StructureId id, const Motion& motion) {
  double worst = 0;
  for (const Motion::BlockReport& block : motion.blocks())
    if (std::ranges::find(block.owners, id) != block.owners.end() &&
        block.shutMisfit_mm > block.closed_mm)
      worst = std::max(worst, block.shutMisfit_mm);
  return worst;
}

bool ringsDecide(const StructureItem& item, const Seat& seat) {
  return waysOf(item).ringsDecide() || seat.kind() == SeatKind::Span;
}

double misfit_mm(const LinearClosure& closure, const ParameterValues& values) {
  const double misfit = std::abs(closure.misfit(values));
  return closure.unit == ParameterUnit::Degree ? radians(misfit) * kAngleArm_mm : misfit;
}

namespace {

/// True when no condition or ring is farther from holding than this.
bool closesWithin(const StructureItem& item, const Motion& motion, double limit_mm) {
  const Assembly& assembly = motion.assembly();
  if (ringsDecide(item, *assembly.findSeat(item.seat)))
    return shutGap_mm(item.id, motion) <= limit_mm;
  for (const LinearClosure& closure :
       findStructureKind(item.kind)->closures(assembly.findSeat(item.seat)->shutOpening_rad))
    if (misfit_mm(closure, item.values) > limit_mm) return false;
  return true;
}

} // namespace

bool closesExactly(const StructureItem& item, const Motion& motion) {
  return closesWithin(item, motion, kExactClosure);
}

bool closesAsPaperGives(const StructureItem& item, const Motion& motion) {
  return closesWithin(item, motion, motion.assembly().closureLimit_mm);
}

} // namespace hinge
