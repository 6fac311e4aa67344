// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/contact/swept.h"
#include "core/motion/openings.h"
#include <algorithm>
#include <cmath>

namespace hinge {

std::vector<std::pair<double, double>> stretchesOf(const Motion& motion, double coarsest_rad,
                                                   double finest_rad) {
  std::vector<double> limits = turningPoints(motion.assembly());
  for (const Motion::BlockReport& block : motion.blocks())
    if (block.low_rad <= block.high_rad)
      limits.push_back(block.low_rad), limits.push_back(block.high_rad);
  std::ranges::sort(limits);
  std::vector<std::pair<double, double>> stretches;
  for (std::size_t i = 0; i + 1 < limits.size(); ++i) {
    const double low = limits[i], high = limits[i + 1];
    const double turn = turnBetween(motion.assembly(), low, high);
    if (turn < finest_rad) continue;
    const int count = std::max(1, static_cast<int>(std::ceil(turn / coarsest_rad)));
    for (int k = 0; k < count; ++k)
      stretches.push_back({low + (high - low) * k / count,
                           k + 1 == count ? high : low + (high - low) * (k + 1) / count});
  }
  return stretches;
}

bool present(PanelIndex panel, const ThreePoses& at) {
  return std::ranges::all_of(at, [&](const Pose* pose) { return pose->placed[panel]; });
}

SweptBox sweptBox(const std::vector<std::vector<Vec3>>& corners, PanelIndex panel,
                  const ThreePoses& at, double margin_mm) {
  SweptBox box;
  double bend = margin_mm;
  for (const auto& part : corners)
    for (const Vec3& corner : part) {
      const Vec3 p0 = at[0]->panels[panel] * corner, p1 = at[1]->panels[panel] * corner,
                 p2 = at[2]->panels[panel] * corner;
      for (const Vec3& p : {p0, p1, p2})
        box.low = box.low.cwiseMin(p), box.high = box.high.cwiseMax(p);
      bend = std::max(bend, 0.5 * (p0 - 2 * p1 + p2).norm());
    }
  box.low.array() -= bend, box.high.array() += bend;
  return box;
}

std::vector<std::pair<int, int>> meetingBoxes(std::vector<SweptBox> boxes) {
  std::ranges::sort(boxes, {}, [](const SweptBox& box) { return box.low.y(); });
  std::vector<std::pair<int, int>> pairs;
  std::vector<const SweptBox*> open;
  for (const SweptBox& box : boxes) {
    std::erase_if(open, [&](const SweptBox* o) { return o->high.y() < box.low.y(); });
    for (const SweptBox* o : open)
      if ((o->low.array() <= box.high.array()).all() && (box.low.array() <= o->high.array()).all())
        pairs.push_back(std::minmax(o->what, box.what));
    open.push_back(&box);
  }
  return pairs;
}

} // namespace hinge
