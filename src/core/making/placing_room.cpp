// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/placing_room.h"
#include <algorithm>

namespace hinge {
namespace {

constexpr double kAtFold_mm = 0.2;

double widestGap(const Motion& motion) {
  double widest = 0;
  for (const Motion::BlockReport& block : motion.blocks())
    widest = std::max(widest, block.shutMisfit_mm);
  return widest;
}

/// How far the structure may move either way within the shut pages.
double roomInside(const Motion& motion, const Glue& glue, const Vec2& along) {
  const Assembly& assembly = motion.assembly();
  if (!motion.shuts()) return kMostRoom_mm;
  const Pose shut = motion.shutPose();
  const Iso3 toRoot = inverseOf(shut.panels[assembly.root]);
  const Vec2 way = (toRoot.linear() * (shut.panels[glue.host].linear() * lift(along))).head<2>();
  Box2 pages, structure;
  for (PanelIndex p : assembly.panels.indices()) {
    const Panel& panel = assembly.panels[p];
    const bool mine = panel.owner && panel.owner == assembly.panels[glue.tab].owner;
    if (!shut.placed[p] || (!mine && panel.use != PanelUse::Page)) continue;
    for (const Vec2& corner : panel.outline.rim)
      (mine ? structure : pages).add((toRoot * (shut.panels[p] * lift(corner))).head<2>());
  }
  if (structure.empty()) return kMostRoom_mm;
  double room = kMostRoom_mm;
  for (Eigen::Index axis : {0, 1})
    if (const double speed = std::abs(way[axis]); speed > 1e-3)
      for (double side :
           {structure.low[axis] - pages.low[axis], pages.high[axis] - structure.high[axis]})
        // What begins at the fold of the card is meant to.
        if (side > kAtFold_mm) room = std::min(room, side / speed);
  return room;
}

} // namespace

double placingRoom_mm(const Motion& motion, JointIndex j, const Vec2& along, bool takenUp) {
  const Glue& glue = std::get<Glue>(motion.assembly().joints[j]);
  const auto within = [](double mm) { return std::clamp(mm, kLeastRoom_mm, kMostRoom_mm); };
  if (takenUp) return within(roomInside(motion, glue, along));
  auto moved = std::make_shared<Assembly>(motion.assembly());
  std::get<Glue>(moved->joints[j]).tabToHost.pretranslate(lift(along));
  const double gapes = widestGap(Motion::trace(moved, {}, &motion)) - widestGap(motion);
  return within(gapes > 1e-6 ? kTakenUp_mm / gapes : kMostRoom_mm);
}

} // namespace hinge
