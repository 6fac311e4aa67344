// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/design/design.h"
#include <string>

namespace hinge {

/// Cutting file: all pieces flat at 1:1 in millimetres, one group ("layer") per kind of line: cut,
/// mountain, valley, glue (tabs), marks (where tabs go), labels. Kinds differ by pattern as well as
/// colour. y points down in the file; pieces are seen from their face side, not mirrored.
std::string piecesToSvg(const Assembly& assembly, const Design& design);

} // namespace hinge
