// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/lift.h"

namespace hinge {

Pose lifted(const Motion& motion, const Pose& pose, const Lift& by, double angle_rad) {
  const Fold& fold = motion.assembly().folds[by.fold];
  const Iso3 at = foldedOver(fold, angle_rad), rest = foldedOver(fold, by.least_rad);
  const PanelIndex host = by.rightMoves ? fold.left : fold.right;
  Pose turned = pose;
  if (!pose.placed[host]) return turned;
  const Iso3& frame = pose.panels[host];
  const Iso3 turn = by.rightMoves ? Iso3(frame * at * rest.inverse() * frame.inverse())
                                  : Iso3(frame * at.inverse() * rest * frame.inverse());
  for (PanelIndex p : by.panels)
    if (pose.placed[p]) turned.panels[p] = turn * pose.panels[p];
  return turned;
}

std::vector<std::vector<Vec3>> platesOf(const Assembly& assembly, PanelIndex panel,
                                        const Pose& pose) {
  std::vector<std::vector<Vec3>> plates;
  for (const Polygon& part : convexParts(assembly.panels[panel].outline)) {
    std::vector<Vec3> corners;
    for (const Vec2& c : part)
      corners.push_back(pose.panels[panel] * lift(c));
    plates.push_back(std::move(corners));
  }
  return plates;
}

} // namespace hinge
