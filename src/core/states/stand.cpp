// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/stand.h"
#include "core/assembly/paper_of.h"
#include <cmath>

namespace hinge {

Iso3 onTable(const CardBase& card, const Assembly& assembly, double opening_rad) {
  if (card.rests == Rests::OnPage) return assembly.onTable(opening_rad);
  if (card.fold == FoldSide::Side || !assembly.symmetric)
    return frame(Vec3::Zero(), Vec3::UnitX(), Vec3::UnitY(), Vec3::UnitZ()) *
           rotationAboutLine(Vec3::Zero(), Vec3::UnitX(), 0.5 * kPi);
  return rotationAboutLine(Vec3::Zero(), Vec3::UnitY(), kPi);
}

Stand standOf(const Motion& motion, const Design& design, std::span<const LaidOn> laid,
              int directions) {
  Stand stand{.opening_rad = radians(design.card.display_deg)};
  stand.reached =
      stand.opening_rad >= motion.low_rad() - 1e-9 && stand.opening_rad <= motion.high_rad() + 1e-9;
  if (!stand.reached) return stand;
  const Assembly& assembly = motion.assembly();
  const Pose pose = motion.poseAt(stand.opening_rad);
  const Iso3 turn = onTable(design.card, motion.assembly(), stand.opening_rad);
  Vec3 moment = Vec3::Zero();
  double ground = 1e300;
  std::vector<Vec3> corners;
  for (PanelIndex p : assembly.panels.indices()) {
    if (!pose.placed[p]) continue;
    const Region& outline = assembly.panels[p].outline;
    // Paper without weight still has a middle.
    const double gsm = std::max(1e-9, paperOf(design, assembly, p).weight_gsm),
                 weight = area_mm2(outline) * 1e-6 * gsm;
    moment += weight * (pose.panels[p] * lift(centroidOf(outline)));
    stand.weight_g += weight;
    for (const Vec2& c : outline.rim) {
      corners.push_back(turn * (pose.panels[p] * lift(c)));
      ground = std::min(ground, corners.back().z());
    }
  }
  for (const LaidOn& on : laid) {
    if (!pose.placed[on.panel] || on.paper.empty()) continue;
    const double weight = area_mm2(on.onPiece) * 1e-6 * design.paperNamed(on.paper).weight_gsm;
    moment += weight * (pose.panels[on.panel] * lift(centroidOf(on.onPiece)));
    stand.weight_g += weight;
  }
  stand.centre = moment / stand.weight_g;
  constexpr double kTouches_mm = 0.5; // paper is never flatter than this
  const Vec3 centre = turn * stand.centre;
  std::vector<Vec2> rests;
  for (const Vec3& c : corners)
    if (c.z() < ground + kTouches_mm) rests.push_back(c.head<2>());
  rests = convexHull(std::move(rests));
  const double height = std::max(centre.z() - ground, 1e-6);
  // The worst direction is square to an edge of what it rests on.
  stand.leastTip_rad = kPi;
  for (std::size_t i = 0; i < rests.size(); ++i) {
    const Vec2 along = (rests[(i + 1) % rests.size()] - rests[i]).normalized(),
               out(along.y(), -along.x());
    const double tip = std::atan2(out.dot(rests[i] - centre.head<2>()), height);
    if (tip < stand.leastTip_rad)
      stand.leastTip_rad = tip,
      stand.worstDirection_rad = std::fmod(std::atan2(out.y(), out.x()) + 2 * kPi, 2 * kPi);
  }
  for (int k = 0; k < directions; ++k) {
    const double angle = 2 * kPi * k / directions;
    const Vec2 way(std::cos(angle), std::sin(angle));
    double reach = -1e300;
    for (const Vec2& p : rests)
      reach = std::max(reach, way.dot(p - centre.head<2>()));
    stand.tips_rad.push_back(std::atan2(reach, height));
  }
  return stand;
}

} // namespace hinge
