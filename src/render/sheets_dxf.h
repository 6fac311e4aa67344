// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/base/result.h"
#include "core/design/design.h"
#include <string>

namespace hinge {

/// The cutting file as DXF (R12, ASCII, $INSUNITS millimetres): the same pieces in the same places
/// as in the SVG, one layer per kind of line: cut, mountain, valley, glue, marks. Fails when there
/// is no room for a temporary file.
Result<std::string> piecesToDxf(const Assembly& assembly, const Design& design);

} // namespace hinge
