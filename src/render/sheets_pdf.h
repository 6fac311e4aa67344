// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/design.h"
#include "core/production/flat_piece.h"
#include <string>

class QPainter;

namespace hinge {

/// Cutting sheets at 1:1: pieces in rows, larger ones tiled over several pages with 8 mm overlap
/// and crosses to join them by; every page has a ruler of exactly 100 mm to check the printer's
/// scale. Written beside the target and moved into place.
Result<void> writeSheetsPdf(const Assembly& assembly, const Design& design,
                            const std::string& path);

} // namespace hinge
