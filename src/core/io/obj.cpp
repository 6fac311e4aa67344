// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/obj.h"
#include "core/units/length.h"
#include <fmt/format.h>

namespace hinge {

Result<std::string> poseToObj(const Motion& motion, double opening_deg) {
  const Assembly& assembly = motion.assembly();
  const Pose pose = motion.poseAt(radians(opening_deg));
  std::string out =
      fmt::format("# Hinge Lantern, millimetres, open {} degrees\n", formatNumber(opening_deg, 3));
  int next = 1;
  for (PanelIndex p : assembly.panels.indices()) {
    const Panel& panel = assembly.panels[p];
    if (!pose.placed[p]) return Error{{"pose.out-of-reach", panel.key, Degrees{opening_deg}}, ""};
    out += fmt::format("g {}\no {}\n", panel.owner ? panel.owner->text() : "card", panel.key);
    // A panel with holes is written in convex parts.
    const std::vector<Polygon> faces = panel.outline.holes.empty()
                                           ? std::vector<Polygon>{panel.outline.rim}
                                           : convexParts(panel.outline);
    for (const Polygon& part : faces) {
      std::string face = "f";
      for (const Vec2& corner : part) {
        const Vec3 q = pose.panels[p] * lift(corner);
        out += fmt::format("v {:.9g} {:.9g} {:.9g}\n", q.x(), q.y(), q.z());
        face += fmt::format(" {}", next++);
      }
      out += face + "\n";
    }
  }
  return out;
}

} // namespace hinge
