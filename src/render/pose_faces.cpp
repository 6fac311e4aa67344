// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/pose_faces.h"

namespace hinge {

SpaceFace spaceFace(const Polygon& part, const Region& whole, const Iso3& place, int source) {
  SpaceFace face;
  face.normal = place.linear().col(2);
  face.source = source;
  for (std::size_t i = 0; i < part.size(); ++i) {
    face.corners.push_back(place * lift(part[i]));
    const Vec2 middle = 0.5 * (part[i] + part[(i + 1) % part.size()]);
    face.edges.push_back(distanceToOutline(whole, middle) < 1e-6);
  }
  return face;
}

Iso3 drawnAt(PanelIndex panel, const Pose& pose, const Iso3& bench, Lying& lying) {
  Iso3 place = bench * pose.panels[panel];
  place.pretranslate(Vec3(bench.linear() * lying.off_mm(panel)));
  return place;
}

QPolygonF onScreen(const SpaceFace& face, const Camera& camera) {
  QPolygonF outline;
  for (const Vec3& corner : face.corners)
    outline << camera.project(corner);
  return outline;
}

std::optional<QTransform> planeOnScreen(const Region& outline, const Iso3& place,
                                        const Camera& camera) {
  const Box2 box = boundsOf(outline);
  const Vec2 corners[] = {
      box.low, {box.high.x(), box.low.y()}, box.high, {box.low.x(), box.high.y()}};
  QPolygonF flat, seen;
  for (const Vec2& corner : corners) {
    flat << QPointF(corner.x(), corner.y());
    seen << camera.project(place * lift(corner));
  }
  QTransform map;
  if (!QTransform::quadToQuad(flat, seen, map)) return std::nullopt;
  return map;
}

} // namespace hinge
