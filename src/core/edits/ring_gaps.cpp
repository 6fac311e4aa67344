// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/free_lengths.h"
#include "core/motion/fold_angle.h"
#include <algorithm>

namespace hinge {
namespace {

/// Panels put into the card along folds and glue, from the pages on.
class Placed {
public:
  Placed(const Assembly& assembly, const IndexedVector<FoldIndex, double>& angles_rad,
         double opening_rad)
      : m_assembly(assembly), m_angles(angles_rad), m_pose(assembly.panels.size()) {
    for (const auto& [panel, pose] : assembly.basePoses(opening_rad))
      m_pose[at(panel)] = pose;
    while (reachFurther()) {
    }
  }

  std::vector<double> gaps() const {
    std::vector<double> all;
    const auto add = [&](const std::optional<Iso3>& one, const Iso3& other, const Vec2& at) {
      const Vec3 gap = *one * lift(at) - other * lift(at);
      all.insert(all.end(), gap.begin(), gap.end());
    };
    for (FoldIndex f : m_assembly.folds.indices()) {
      const Fold& fold = m_assembly.folds[f];
      const auto &left = m_pose[at(fold.left)], &right = m_pose[at(fold.right)];
      if (left && right) add(right, *left * foldedOver(fold, m_angles[f]), fold.from);
    }
    for (const auto& [j, glue] : m_assembly.every<Glue>()) {
      const auto &host = m_pose[at(glue.host)], &tab = m_pose[at(glue.tab)];
      if (host && tab)
        add(tab, *host * glue.tabToHost, m_assembly.panels[glue.tab].outline.rim.front());
    }
    return all;
  }

private:
  static std::size_t at(PanelIndex panel) { return static_cast<std::size_t>(panel.value); }

  bool reachFurther() {
    bool more = false;
    const auto pass = [&](PanelIndex from, PanelIndex to, const Iso3& by) {
      if (!m_pose[at(from)] || m_pose[at(to)]) return;
      m_pose[at(to)] = *m_pose[at(from)] * by;
      more = true;
    };
    for (FoldIndex f : m_assembly.folds.indices()) {
      const Fold& fold = m_assembly.folds[f];
      const Iso3 rightToLeft = foldedOver(fold, m_angles[f]);
      pass(fold.left, fold.right, rightToLeft);
      pass(fold.right, fold.left, inverseOf(rightToLeft));
    }
    for (const auto& [j, glue] : m_assembly.every<Glue>()) {
      pass(glue.host, glue.tab, glue.tabToHost);
      pass(glue.tab, glue.host, inverseOf(glue.tabToHost));
    }
    return more;
  }

  const Assembly& m_assembly;
  const IndexedVector<FoldIndex, double>& m_angles;
  std::vector<std::optional<Iso3>> m_pose;
};

} // namespace

std::vector<double> ringGaps(const Assembly& assembly,
                             const IndexedVector<FoldIndex, double>& angles_rad,
                             double opening_rad) {
  return Placed(assembly, angles_rad, opening_rad).gaps();
}

IndexedVector<FoldIndex, double> foldAngles(const Motion& motion, double opening_rad) {
  IndexedVector<FoldIndex, double> angles;
  const Assembly& assembly = motion.assembly();
  const Pose pose = motion.poseAt(opening_rad);
  for (const Fold& fold : assembly.folds)
    angles.push(pose.placed[fold.left] && pose.placed[fold.right] ? foldAngleIn(pose, fold) : 0.0);
  return angles;
}

std::vector<double> glueSlacks(const Assembly& assembly) {
  constexpr double kLeastEdge_mm = 5; // the pieces of a curve are no line to keep to
  std::vector<double> all;
  for (const auto& [j, glue] : assembly.every<Glue>())
    for (const Edge& edge : edgesOf(Region(assembly.panels[glue.host].outline.rim))) {
      const Vec2 along = edge.second - edge.first;
      if (along.norm() < kLeastEdge_mm) continue;
      const Vec2 inwards = Vec2(-along.y(), along.x()).normalized();
      double least = 1e300;
      for (const Vec2& corner : assembly.panels[glue.tab].outline.rim)
        least =
            std::min(least, inwards.dot((glue.tabToHost * lift(corner)).head<2>() - edge.first));
      all.push_back(least);
    }
  return all;
}

} // namespace hinge
