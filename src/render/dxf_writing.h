// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/geom/vectors.h"
#include <functional>
#include <string>
#include <vector>

namespace hinge {

struct DxfLayer {
  std::string name;
  int colour = 7; ///< of the format's list: the programs that read it tell layers apart by it
};
/// Writes a polyline (mm) on a layer, by its place in the list.
using DxfPath = std::function<void(std::size_t layer, const std::vector<Vec2>&, bool closed)>;

/// A DXF (R12, ASCII, $INSUNITS millimetres) with what `draw` puts into it. Fails when there is no
/// room for a temporary file.
Result<std::string> writtenAsDxf(const std::vector<DxfLayer>& layers,
                                 const std::function<void(const DxfPath&)>& draw);

} // namespace hinge
