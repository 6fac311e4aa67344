// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/lying.h"
#include "core/states/lift.h"
#include <limits>

namespace hinge {

Lying::Lying(const Assembly& assembly, const Pose& pose) : m_assembly(assembly), m_pose(pose) {
  m_rank.assign(assembly.panels.size(), std::numeric_limits<int>::max());
  m_finding.assign(assembly.panels.size(), 0);
  int rank = 0;
  for (const auto& [page, at] : assembly.basePoses(pose.opening_rad))
    m_rank[page] = rank++;
}

Vec3 Lying::off_mm(PanelIndex panel) {
  // Joints may go round in a ring: then nobody lies on top.
  if (m_finding[panel]) return Vec3::Zero();
  m_finding[panel] = 1;
  const Vec3 off = byJoint_mm(panel);
  m_finding[panel] = 0;
  return off;
}

Vec3 Lying::byJoint_mm(PanelIndex panel) {
  const Glue* glue = m_assembly.glueOf(panel);
  if (!glue) return folded_mm(panel);
  const double side = glue->onHostFace() ? 1.0 : -1.0;
  return off_mm(glue->host) +
         (kStep_mm + glue->raised_mm) * side * m_pose.panels[glue->host].linear().col(2);
}

/// What slides on a panel, and what is folded over it for good, such as the front of a pocket.
Vec3 Lying::folded_mm(PanelIndex panel) {
  const auto off = [&](PanelIndex host, double layers) {
    return Vec3(off_mm(host) + kStep_mm * layers * m_pose.panels[host].linear().col(2));
  };
  const auto guided = [&](const auto& guide) {
    return off(guide.first, (guide.onFace() ? 2 : -2) * (1 + guide.over));
  };
  for (const auto& [j, slide] : m_assembly.every<Slide>())
    if (slide.second == panel) return guided(slide);
  for (const auto& [j, pivot] : m_assembly.every<Pivot>())
    if (pivot.second == panel) return guided(pivot);
  for (const Carried& carried : m_assembly.carried)
    if (carried.panel == panel) return off(carried.host, 3 * packedLayer(m_assembly, carried));
  for (FoldIndex f : m_assembly.foldsOf(panel)) {
    const Fold& fold = m_assembly.folds[f];
    if (!fold.rest_rad || std::abs(*fold.rest_rad) < kPi - 1e-6) continue;
    const PanelIndex host = fold.left == panel ? fold.right : fold.left;
    if (m_rank[host] < m_rank[panel]) return off(host, *fold.rest_rad > 0 ? 3 : -3);
  }
  return Vec3::Zero();
}

} // namespace hinge
