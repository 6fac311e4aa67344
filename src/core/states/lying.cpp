// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/lying.h"
#include "core/states/lift.h"
#include <algorithm>
#include <iterator>
#include <limits>
#include <utility>

namespace hinge {
namespace {

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
      if (carried.panel == panel) {
        LiesOnPanel lies = on(carried.host, 3 * packedLayer(m_assembly, carried));
        lies.packed = true;
        return lies;
      }
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

/// Moves sheets up until each is off those under it, where joints say and an order does.
class Settling {
public:
  Settling(const Pose& pose, const IndexedVector<PanelIndex, LiesOnPanel>& lies,
           IndexedVector<PanelIndex, Vec3>& off)
      : m_pose(pose), m_lies(lies), m_off(off) {
    off.assign(lies.size(), Vec3::Zero());
    m_placed.assign(lies.size(), 0);
    for (PanelIndex p : lies.indices())
      place(p);
  }

  void settle(std::span<const SheetOrder> order) {
    for (const SheetOrder& two : order)
      if (holds(two))
        add(two.under, two.over, Lying::kStep_mm * (two.onFace ? 1 : -1) * upOf(two.under));
    if (m_over.empty()) return;
    for (PanelIndex p : m_lies.indices())
      if (!m_lies[p].by_mm.isZero()) add(m_lies[p].host, p, m_lies[p].by_mm);
    constexpr int kPasses = 100; // sheets that lie over one another in a ring never come to rest
    bool moved = true;
    for (int pass = 0; moved && pass < kPasses; ++pass) {
      moved = false;
      for (const Over& two : m_over) {
        const double lacks = two.least_mm - two.up.dot(m_off[two.over] - m_off[two.under]);
        if (lacks < 0.01 * Lying::kStep_mm) continue;
        m_off[two.over] += lacks * two.up;
        moved = true;
      }
    }
  }

private:
  struct Over {
    PanelIndex under, over;
    Vec3 up;
    double least_mm;
  };

  /// Off its host, which is off its own. Joints may go round in a ring: each is placed once.
  void place(PanelIndex panel) {
    if (std::exchange(m_placed[panel], 1)) return;
    const LiesOnPanel& lies = m_lies[panel];
    if (!lies.host.valid()) return;
    place(lies.host);
    m_off[panel] = m_off[lies.host] + lies.by_mm;
  }

  Vec3 upOf(PanelIndex panel) const { return m_pose.panels[panel].linear().col(2); }

  /// Everything moves to one side of its plane, so that what has come to rest stays so.
  void add(PanelIndex under, PanelIndex over, const Vec3& by_mm) {
    static const Vec3 kUpwards(0.31, 0.53, 0.79); // in no plane in which paper lies
    const Vec3 up = by_mm.normalized();
    if (up.dot(kUpwards) > 0)
      m_over.push_back({under, over, up, by_mm.norm()});
    else
      m_over.push_back({over, under, -up, by_mm.norm()});
  }

  /// At this opening, and where no hand has taken one of them away.
  bool holds(const SheetOrder& two) const {
    constexpr double kSame_rad = 1e-9, kOneWay = 1e-3;
    return m_pose.opening_rad >= two.from_rad - kSame_rad &&
           m_pose.opening_rad <= two.to_rad + kSame_rad && m_pose.placed[two.under] &&
           m_pose.placed[two.over] && upOf(two.under).cross(upOf(two.over)).norm() < kOneWay;
  }

  const Pose& m_pose;
  const IndexedVector<PanelIndex, LiesOnPanel>& m_lies;
  IndexedVector<PanelIndex, Vec3>& m_off;
  IndexedVector<PanelIndex, char> m_placed;
  std::vector<Over> m_over;
};

} // namespace

Lying::Lying(const Assembly& assembly, const Pose& pose, std::span<const SheetOrder> order) {
  const ByJoints joints(assembly, pose);
  for (PanelIndex p : assembly.panels.indices())
    m_lies.push(joints.of(p));
  Settling(pose, m_lies, m_off).settle(order);
}

bool Lying::areJoined(PanelIndex a, PanelIndex b) const {
  // From each up to what lies on nothing. Joints may go round in a ring.
  const auto hostsOf = [&](PanelIndex panel) {
    std::vector<PanelIndex> hosts{panel};
    for (PanelIndex on = m_lies[panel].host;
         on.valid() && std::ranges::find(hosts, on) == hosts.end(); on = m_lies[on].host)
      hosts.push_back(on);
    return hosts;
  };
  const std::vector<PanelIndex> of = hostsOf(a), other = hostsOf(b);
  for (std::size_t k = 0; k < of.size(); ++k) {
    const auto at = std::ranges::find(other, of[k]);
    if (at == other.end()) continue;
    if (k == 0 || at == other.begin()) return true;
    const LiesOnPanel &one = m_lies[of[k - 1]], &next = m_lies[*std::prev(at)];
    return one.by_mm.dot(next.by_mm) < 0 || (one.packed && next.packed);
  }
  return false;
}

} // namespace hinge
