#pragma once
#include "core/assembly/assembly.h"

namespace hinge {

/// Sums of typed decimals and inch fractions differ by the rounding of doubles only; a real misfit is far above this
/// (mm or degrees).
constexpr double kExactClosure = 1e-6;

/// True when the structure meets all exact conditions for lying flat in the shut card on the seat it stands on.
bool closesExactly(const StructureItem& item, const Assembly& assembly);

} // namespace hinge
