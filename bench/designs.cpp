// SPDX-License-Identifier: GPL-3.0-or-later
#include "designs.h"
#include "core/edits/edits.h"
#include "core/io/design_json.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"

namespace hinge::bench {

Design demo(const char* name) {
  return *loadDesign(std::string(HINGE_SOURCE_DIR "/demo/") + name + ".hinge");
}

Design slowCase(const char* name) {
  return *loadDesign(std::string(HINGE_SOURCE_DIR "/bench/cases/") + name + ".hinge");
}

Design row(int count, double reach) {
  Design d;
  d.card.width_mm = 130, d.card.height_mm = starting::kLargestCard_mm;
  const double pitch = 980.0 / ((count + 2) / 3);
  for (int k = 0; k < count; ++k) {
    const int tier = k % 3;
    const std::string seat = tier > 0 ? "s" + std::to_string(k) + "/ridge" : "gutter";
    const double length = pitch * reach * (1 - 0.2 * tier), foot = (k / 3) % 2 ? 30 : 34;
    const double sides[] = {foot, 14, 8}, walls[] = {45, 26, 16};
    // What has been added to boxes since is as in files from before.
    ParameterValues box = startingValues(findStructureKind("box")->parameters);
    for (const auto& [key, value] :
         ParameterValues{{"position", tier > 0 ? 0.1 * length : 2 + pitch * (k / 3)},
                         {"length", length},
                         {"a", sides[tier]},
                         {"b", sides[tier]},
                         {"c", walls[tier]},
                         {"d", walls[tier]},
                         {"tab", tier > 0 ? 6.0 : 10.0}})
      box[key] = value;
    d = addStructure(d, "box", seat, box)->design;
  }
  return d;
}

} // namespace hinge::bench
