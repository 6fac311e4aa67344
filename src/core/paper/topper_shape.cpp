// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/topper_shape.h"
#include "core/paper/shapes/shapes.h"
#include <algorithm>

namespace hinge {

std::span<const TopperShape> topperShapes() {
  using namespace shapes;
  static const TopperShape all[] = {
      {"tag", 36, 20, 0.4, &tag},         {"banner", 44, 16, 0.35, &banner},
      {"disc", 24, 24, 0.5, &disc},       {"ring", 28, 28, 0.4, &ring},
      {"arch", 24, 34, 0.5, &arch},       {"awning", 40, 16, 0.5, &awning},
      {"lantern", 18, 28, 0.5, &lantern}, {"boat", 40, 18, 0.5, &boat},
      {"gull", 32, 12, 0.5, &gull},       {"wave", 44, 12, 0.5, &wave},
      {"house", 26, 36, 0.5, &house},     {"moon", 22, 24, 0.5, &moon},
      {"star", 22, 22, 0.45, &star},      {"fish", 32, 16, 0.5, &fish},
      {"parasol", 32, 30, 0.5, &parasol}, {"cloud", 36, 20, 0.5, &cloud},
      {"leaf", 14, 30, 0.5, &leaf},       {"lamp-post", 16, 44, 0.5, &lampPost}};
  return all;
}

const TopperShape* findTopperShape(std::string_view key) {
  const auto all = topperShapes();
  const auto found = std::ranges::find(all, key, &TopperShape::key);
  return found == all.end() ? nullptr : &*found;
}

Region topperOutline(const TopperShape& shape, double width_mm, double height_mm, double detail) {
  Region region = shape.outline(std::clamp(detail, 0.0, 1.0));
  const auto scale = [&](Polygon& ring) {
    for (Vec2& corner : ring)
      corner = corner.cwiseProduct(Vec2(width_mm, height_mm));
  };
  scale(region.rim);
  for (Polygon& hole : region.holes)
    scale(hole);
  return region;
}

} // namespace hinge
