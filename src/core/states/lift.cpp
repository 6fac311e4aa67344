// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/lift.h"

namespace hinge {

Pose lifted(const Assembly& assembly, const Pose& pose, const Lift& by, double share) {
  if (by.poses) {
    Pose moved = pose;
    if (!pose.placed[by.stays]) return moved;
    const std::vector<Iso3> there = by.poses(share);
    for (std::size_t k = 0; k < there.size(); ++k)
      moved.panels[by.panels[k]] = pose.panels[by.stays] * there[k];
    return moved;
  }
  const double to = by.least + (by.most - by.least) * share;
  const auto ends = by.fold.valid()
                        ? std::array{assembly.folds[by.fold].left, assembly.folds[by.fold].right}
                        : panelsOf(assembly.joints[by.joint]);
  const auto toFirst = [&](double at) { // the second in the first
    return by.fold.valid() ? foldedOver(assembly.folds[by.fold], at)
                           : movedInFirst(assembly.joints[by.joint], at);
  };
  const PanelIndex host = ends[by.secondMoves ? 0 : 1];
  Pose moved = pose;
  if (!pose.placed[host]) return moved;
  const Iso3& frame = pose.panels[host];
  const Iso3 at = toFirst(to), rest = toFirst(by.least);
  const Iso3 change = by.secondMoves ? Iso3(at * inverseOf(rest)) : Iso3(inverseOf(at) * rest);
  const Iso3 turn = frame * change * inverseOf(frame);
  for (PanelIndex p : by.panels)
    if (pose.placed[p]) moved.panels[p] = turn * pose.panels[p];
  return moved;
}

int packedLayer(const Assembly& assembly, const Carried& carried) {
  if (assembly.panels[carried.panel].piece != assembly.panels[carried.host].piece) return 1;
  return carried.at.linear()(2, 2) < 0 ? 2 : 0;
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
