// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/evidence.h"
#include "core/pieces/pocket.h"
#include <algorithm>

// Pockets: what slides has room beside it, and what is glued over it keeps enough glue on both
// sides.

namespace hinge {
namespace {

std::vector<Finding> checkPockets(const CheckInput& in) {
  std::vector<Finding> found;
  const double least = in.design.settings.leastTabDepth_mm;
  for (const Pocket& pocket : pocketsOf(in.assembly)) {
    const Slide& slide = std::get<Slide>(in.assembly.joints[pocket.slide]);
    const double play = slidePlay_mm(pocket.inside_mm),
                 room = std::min(pocket.low_mm, pocket.high_mm) - play;
    const bool tight = room < -1e-6;
    if (!tight && (!pocket.covers || room >= least - 1e-6)) continue;
    Finding f =
        findingOn(in, tight ? "pocket-tight" : "pocket-glue",
                  tight ? Severity::Spoils : Severity::Advice, {pocket.panel, slide.second});
    f.amount = tight ? -room : least - room;
    found.push_back(std::move(f));
  }
  return found;
}

} // namespace

const CheckKind& pocketsCheck() {
  static const CheckKind kind{"pockets", checkPockets};
  return kind;
}

} // namespace hinge
