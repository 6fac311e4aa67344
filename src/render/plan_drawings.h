// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/production/cut_plan.h"
#include <string>

namespace hinge {

/// One sheet of a plan for a cutting program, 1:1 in millimetres: a layer for each kind of stroke
/// (see StrokeKind), in the order of the work, strokes within them as strokesOf() has them, and the
/// sheet's own edge on a layer of its own. In the SVG y points down.
std::string sheetToSvg(const CutPlan& plan, std::size_t sheet);
/// The same as DXF (R12, ASCII, $INSUNITS millimetres), y up. Fails when there is no room for a
/// temporary file.
Result<std::string> sheetToDxf(const CutPlan& plan, std::size_t sheet);

} // namespace hinge
