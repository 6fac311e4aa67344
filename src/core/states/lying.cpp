// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/lying.h"
#include "core/states/lift.h"
#include <limits>
#include <utility>

namespace hinge {
namespace {

/// A panel that lies on another one, so far off it.
struct LiesOnPanel {
  PanelIndex host; ///< not valid: on none
  Vec3 by_mm = Vec3::Zero();
};

/// What joints and folds that are folded over for good say.
class ByJoints {
public:
  ByJoints(const Assembly& assembly, const Pose& pose) : m_assembly(assembly), m_pose(pose) {
    m_rank.assign(assembly.panels.size(), std::numeric_limits<int>::max());
    int rank = 0;
    for (const auto& [page, at] : assembly.basePoses(pose.opening_rad))
      m_rank[page] = rank++;
  }

  LiesOnPanel of(PanelIndex panel) const {
    const Glue* glue = m_assembly.glueOf(panel);
    if (!glue) return guidedOrFolded(panel);
    const double side = glue->onHostFace() ? 1.0 : -1.0;
    return {glue->host,
            (Lying::kStep_mm + glue->raised_mm) * side * m_pose.panels[glue->host].linear().col(2)};
  }

private:
  LiesOnPanel on(PanelIndex host, double layers) const {
    return {host, Lying::kStep_mm * layers * m_pose.panels[host].linear().col(2)};
  }

  /// What slides on a panel, and what is folded over it for good, such as the front of a pocket.
  LiesOnPanel guidedOrFolded(PanelIndex panel) const {
    const auto guided = [&](const auto& guide) {
      return on(guide.first, (guide.onFace() ? 2 : -2) * (1 + guide.over));
    };
    for (const auto& [j, slide] : m_assembly.every<Slide>())
      if (slide.second == panel) return guided(slide);
    for (const auto& [j, pivot] : m_assembly.every<Pivot>())
      if (pivot.second == panel) return guided(pivot);
    for (const Carried& carried : m_assembly.carried)
      if (carried.panel == panel) return on(carried.host, 3 * packedLayer(m_assembly, carried));
    for (FoldIndex f : m_assembly.foldsOf(panel)) {
      const Fold& fold = m_assembly.folds[f];
      if (!fold.rest_rad || std::abs(*fold.rest_rad) < kPi - 1e-6) continue;
      const PanelIndex host = fold.left == panel ? fold.right : fold.left;
      if (m_rank[host] < m_rank[panel]) return on(host, *fold.rest_rad > 0 ? 3 : -3);
    }
    return {};
  }

  const Assembly& m_assembly;
  const Pose& m_pose;
  IndexedVector<PanelIndex, int> m_rank; ///< how near to the page on the table a page hangs
};

/// Moves sheets, with all that lies on them, until each is off those under it.
class Settling {
public:
  Settling(const Assembly& assembly, const Pose& pose, IndexedVector<PanelIndex, Vec3>& off)
      : m_pose(pose), m_off(off) {
    const ByJoints joints(assembly, pose);
    off.assign(assembly.panels.size(), Vec3::Zero());
    m_on.assign(assembly.panels.size(), {});
    std::vector<LiesOnPanel> lies;
    for (PanelIndex p : assembly.panels.indices()) {
      lies.push_back(joints.of(p));
      if (lies.back().host.valid()) m_on[lies.back().host].push_back(p);
    }
    for (PanelIndex p : assembly.panels.indices())
      move(p, lies[static_cast<std::size_t>(p.value)].by_mm);
  }

  void settle(std::span<const SheetOrder> order) {
    constexpr int kPasses = 24; // sheets that lie over one another in a ring never come to rest
    std::vector<const SheetOrder*> here;
    for (const SheetOrder& two : order)
      if (holds(two)) here.push_back(&two);
    bool moved = !here.empty();
    for (int pass = 0; moved && pass < kPasses; ++pass) {
      moved = false;
      for (const SheetOrder* two : here) {
        const Vec3 up = (two->onFace ? 1 : -1) * m_pose.panels[two->under].linear().col(2);
        const double lacks = Lying::kStep_mm - up.dot(m_off[two->over] - m_off[two->under]);
        if (lacks < 0.01 * Lying::kStep_mm) continue;
        move(two->over, lacks * up);
        moved = true;
      }
    }
  }

private:
  /// At this opening, and where no hand has taken one of them away.
  bool holds(const SheetOrder& two) const {
    constexpr double kSame_rad = 1e-9, kOneWay = 1e-3;
    return m_pose.opening_rad >= two.from_rad - kSame_rad &&
           m_pose.opening_rad <= two.to_rad + kSame_rad && m_pose.placed[two.under] &&
           m_pose.placed[two.over] &&
           m_pose.panels[two.under]
                   .linear()
                   .col(2)
                   .cross(m_pose.panels[two.over].linear().col(2))
                   .norm() < kOneWay;
  }

  /// Joints may go round in a ring: each is moved once.
  void move(PanelIndex panel, const Vec3& by) {
    if (by.isZero()) return;
    IndexedVector<PanelIndex, char> done;
    done.assign(m_off.size(), 0);
    std::vector<PanelIndex> open{panel};
    while (!open.empty()) {
      const PanelIndex p = open.back();
      open.pop_back();
      if (std::exchange(done[p], 1)) continue;
      m_off[p] += by;
      open.insert(open.end(), m_on[p].begin(), m_on[p].end());
    }
  }

  const Pose& m_pose;
  IndexedVector<PanelIndex, Vec3>& m_off;
  IndexedVector<PanelIndex, std::vector<PanelIndex>> m_on; ///< what lies on each by a joint
};

} // namespace

Lying::Lying(const Assembly& assembly, const Pose& pose, std::span<const SheetOrder> order) {
  Settling(assembly, pose, m_off).settle(order);
}

} // namespace hinge
