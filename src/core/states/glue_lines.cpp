// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/glue_lines.h"

namespace hinge {
namespace {
constexpr double kBeside_mm = 0.5;
}

std::vector<GlueLine> glueLines(const Assembly& assembly) {
  std::vector<GlueLine> all;
  for (const auto& [j, glue] : assembly.every<Glue>()) {
    if (assembly.panels[glue.tab].use != PanelUse::Tab) continue;
    for (FoldIndex f : assembly.foldsOf(glue.tab)) {
      const Fold& fold = assembly.folds[f];
      const PanelIndex wall = fold.left == glue.tab ? fold.right : fold.left;
      const Vec2 along = (fold.to - fold.from).normalized(), left(-along.y(), along.x());
      const Vec2 into = fold.left == wall ? left : Vec2(-left);
      const Vec2 middle = (glue.tabToHost * lift(0.5 * (fold.from + fold.to))).head<2>(),
                 across = (glue.tabToHost.linear() * lift(left)).head<2>();
      const Region& outline = assembly.panels[glue.host].outline;
      if (!contains(outline, middle + kBeside_mm * across) ||
          !contains(outline, middle - kBeside_mm * across))
        continue;
      all.push_back(
          {wall, glue.tab, glue.host, lift(into), Vec3(0, 0, glue.onHostFace() ? 1 : -1), middle});
    }
  }
  return all;
}

} // namespace hinge
