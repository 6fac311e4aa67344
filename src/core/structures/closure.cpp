#include "core/structures/closure.h"
#include "core/structures/registry.h"
#include <cmath>

namespace hinge {

bool closesExactly(const StructureItem& item, const Assembly& assembly) {
  for (const LinearClosure& closure : findStructureKind(item.kind)->closures(assembly.findSeat(item.seat)->shutOpening_rad))
    if (std::abs(closure.misfit(item.values)) >= kExactClosure) return false;
  return true;
}

} // namespace hinge
