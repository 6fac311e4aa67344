// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/base/result.h"

namespace hinge {

/// Runs the recipes of the base and of all structures in their order. Fails, naming the structure,
/// when a seat is not there or sizes make no possible panel. Cost: linear in the number of
/// structures, times the seat look-up.
Result<Assembly> assembleDesign(const Design& design);

/// Sizes for a new structure on a seat of the assembly: the starting values scaled to the room,
/// with `given` put over them exactly; dimensions that were not given follow the closures where
/// they can.
Result<ParameterValues> valuesForNew(const Assembly& assembly, const Settings& settings,
                                     std::string_view kind, std::string_view seat,
                                     const ParameterValues& given);

} // namespace hinge
