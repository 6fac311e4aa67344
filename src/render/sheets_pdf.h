// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/model/snapshot.h"
#include "core/production/bench.h"
#include <string>

namespace hinge {

/// Cutting sheets at 1:1: pieces and layers of each paper nested on its sheets, inside of a margin
/// that printers leave; parts larger than a sheet tiled over several pages with 8 mm overlap and
/// crosses to join them by; every page has a ruler of exactly 100 mm and 4 in to check the
/// printer's scale. Panels whose face nobody sees have an X when it is known by now what is seen
/// (see Snapshot::seen). Then the score and cut tables. Written beside the target and moved into
/// place.
Result<void> writeSheetsPdf(const Snapshot& snapshot, const Bench& bench, const std::string& path);

} // namespace hinge
