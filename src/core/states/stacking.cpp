// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/stacking.h"
#include "core/states/lying.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <map>
#include <queue>

namespace hinge {
namespace {

// Openings at which the order is read, smallest first. Close to the shut card panels lie as they
// will come to lie; where two are still closer than rounding there, the next opening decides.
constexpr double kReadAt_deg[] = {0.05, 0.3, 1.5};

struct Sheet {
  PanelIndex panel;
  std::vector<Polygon>
      parts; ///< convex, in the plane of the shut card (y along the gutter, z away from it)
  Region whole;
  Box2 box;
};

class Stacker {
public:
  Stacker(const Motion& motion, std::span<const SheetOrder> order, std::stop_token stop)
      : m_motion(motion), m_assembly(motion.assembly()), m_shut(upright(motion.shutPose())),
        m_stop(stop), m_poses(besideShut()), m_lying(m_assembly, m_poses.front()) {
    for (PanelIndex p : m_assembly.panels.indices()) {
      Sheet sheet{p, {}, {}, {}};
      // The shut plane is x = 0; its y and z become the plane's own axes.
      const Iso3 inShut = frame(Vec3::Zero(), Vec3::UnitZ(), Vec3::UnitX(), Vec3::UnitY());
      sheet.whole = mapped(m_assembly.panels[p].outline, inShut * m_shut.panels[p]);
      sheet.parts = convexParts(sheet.whole);
      sheet.box = boundsOf(sheet.whole);
      m_sheets.push_back(std::move(sheet));
    }
    const Pose& beside = m_poses.front();
    for (const SheetOrder& two : order) {
      // What nothing decides may lie in the shut card as the rest of it wants.
      if (two.open || two.from_rad > beside.opening_rad || two.to_rad < beside.opening_rad)
        continue;
      const bool up = beside.panels[two.under].linear()(0, 2) > 0;
      m_order[{two.under, two.over}] = up == two.onFace ? 1 : -1;
    }
  }

  Stacking run() {
    Stacking result{true, {}, {}, {}};
    compareAll();
    sort(result);
    verifyFolds(result);
    verifyNested(result);
    return result;
  }

private:
  /// Bases whose root lies still shut into the plane z = 0: turned into x = 0, where those that
  /// open to both sides lie.
  Pose upright(Pose pose) const {
    if (m_assembly.symmetric) return pose;
    const Iso3 turn = rotationAboutLine(Vec3::Zero(), Vec3::UnitY(), 0.5 * kPi);
    for (Iso3& panel : pose.panels)
      panel = turn * panel;
    return pose;
  }
  std::vector<Pose> besideShut() const {
    std::vector<Pose> poses;
    for (const double deg : kReadAt_deg)
      poses.push_back(upright(m_motion.poseAt(radians(deg))));
    return poses;
  }

  /// +1 when b lies above a (towards page b) at a place in the shut plane, -1 below, 0 when nothing
  /// tells.
  int above(PanelIndex a, PanelIndex b, const Vec2& place) const {
    // What lies on one another already is in one plane: heights there are rounding.
    if (const auto it = m_order.find({a, b}); it != m_order.end()) return it->second;
    if (const auto it = m_order.find({b, a}); it != m_order.end()) return -it->second;
    for (const Pose& pose : m_poses) {
      const auto height = [&](PanelIndex p) -> std::optional<double> {
        if (!pose.placed[p]) return std::nullopt;
        const Vec3 n = pose.panels[p].linear().col(2), o = pose.panels[p].translation();
        if (std::abs(n.x()) < 0.2) return std::nullopt;
        return o.x() - (n.y() * (place.x() - o.y()) + n.z() * (place.y() - o.z())) / n.x();
      };
      const auto ha = height(a), hb = height(b);
      if (ha && hb && std::abs(*hb - *ha) > kApart_mm) return *hb > *ha ? 1 : -1;
    }
    // Of what goes together flat joints tell.
    if (!m_lying.areJoined(a, b)) return 0;
    const double between = m_lying.off_mm(b).x() - m_lying.off_mm(a).x();
    if (std::abs(between) < 0.5 * Lying::kStep_mm) return 0;
    return between > 0 ? 1 : -1;
  }

  void compareAll() {
    std::vector<std::size_t> byStart(m_sheets.size());
    for (std::size_t k = 0; k < byStart.size(); ++k)
      byStart[k] = k;
    std::ranges::sort(byStart, {}, [&](std::size_t k) { return m_sheets[k].box.low.x(); });
    std::vector<std::size_t> open;
    for (std::size_t k : byStart) {
      if (m_stop.stop_requested()) return;
      const Sheet& sheet = m_sheets[k];
      std::erase_if(open,
                    [&](std::size_t o) { return m_sheets[o].box.high.x() <= sheet.box.low.x(); });
      for (std::size_t o : open)
        if (m_sheets[o].box.high.y() > sheet.box.low.y() &&
            sheet.box.high.y() > m_sheets[o].box.low.y())
          compare(m_sheets[o], sheet);
      open.push_back(k);
    }
  }

  void compare(const Sheet& a, const Sheet& b) {
    double most = 0;
    Vec2 place = Vec2::Zero();
    for (const Polygon& pa : a.parts)
      for (const Polygon& pb : b.parts) {
        const Polygon shared = intersectConvex(pa, pb);
        const double area = shared.empty() ? 0.0 : std::abs(signedArea_mm2(shared));
        if (area > most) most = area, place = centroidOf(shared);
      }
    if (most < kLeastOverlap_mm2) return;
    const int side = above(a.panel, b.panel, place);
    if (side == 0) return;
    const auto [low, high] = side > 0 ? std::pair{a.panel, b.panel} : std::pair{b.panel, a.panel};
    m_over[low.value].push_back(high.value);
    m_sides[{a.panel.value, b.panel.value}] = side;
    m_meets[a.panel.value].push_back(b.panel), m_meets[b.panel.value].push_back(a.panel);
  }

  /// Known order of two overlapping panels: +1 when b lies above a.
  int known(PanelIndex a, PanelIndex b) const {
    if (const auto it = m_sides.find({a.value, b.value}); it != m_sides.end()) return it->second;
    if (const auto it = m_sides.find({b.value, a.value}); it != m_sides.end()) return -it->second;
    return 0;
  }

  void sort(Stacking& result) const {
    std::map<int, int> under;
    for (const Sheet& s : m_sheets)
      under[s.panel.value] = 0;
    for (const auto& [low, highs] : m_over)
      for (int high : highs)
        ++under[high];
    std::priority_queue<int, std::vector<int>, std::greater<>> ready;
    for (const auto& [panel, count] : under)
      if (count == 0) ready.push(panel);
    while (!ready.empty()) {
      const int panel = ready.top();
      ready.pop();
      result.order.push_back(PanelIndex(panel));
      const auto over = m_over.find(panel);
      if (over == m_over.end()) continue;
      for (int high : over->second)
        if (--under[high] == 0) ready.push(high);
    }
    if (result.order.size() == m_sheets.size()) return;
    result.order.clear();
    // What is left holds a ring: following panels that lie above from any of them comes back to one
    // already met.
    const auto left = [&](int p) { return under.at(p) > 0; };
    std::vector<int> path;
    int at = -1;
    for (const auto& [panel, count] : under)
      if (count > 0) {
        at = panel;
        break;
      }
    // Walk downwards: everything that is left has something left beneath it.
    std::map<int, std::vector<int>> beneath;
    for (const auto& [low, highs] : m_over)
      for (int high : highs)
        if (left(low) && left(high)) beneath[high].push_back(low);
    while (std::ranges::find(path, at) == path.end())
      path.push_back(at), at = beneath.at(at).front();
    for (auto it = std::ranges::find(path, at); it != path.end(); ++it)
      result.ring.push_back(PanelIndex(*it));
    std::ranges::reverse(result.ring);
  }

  void verifyFolds(Stacking& result) const {
    for (FoldIndex f : m_assembly.folds.indices()) {
      const Fold& fold = m_assembly.folds[f];
      if (m_motion.shutAngle(f) == 0) continue;
      const int leaves = known(fold.left, fold.right);
      if (leaves == 0) continue;
      const Vec2 from = (m_shut.panels[fold.left] * lift(fold.from)).tail<2>(),
                 to = (m_shut.panels[fold.left] * lift(fold.to)).tail<2>();
      const Vec2 along = (to - from).normalized(), across(-along.y(), along.x());
      // What lies between the leaves lies over the left one.
      std::vector<PanelIndex> near = m_meets.at(fold.left.value);
      std::ranges::sort(near);
      for (PanelIndex panel : near) {
        const Sheet& s = m_sheets[static_cast<std::size_t>(panel.value)];
        if (s.panel == fold.left || s.panel == fold.right) continue;
        const int left = known(fold.left, s.panel), right = known(s.panel, fold.right);
        if (left == 0 || left != right || left != leaves) continue; // not between the leaves
        for (double share : {0.1, 0.5, 0.9}) {
          const Vec2 at = from + share * (to - from);
          if (!contains(s.whole, at + kBesideFold_mm * across) ||
              !contains(s.whole, at - kBesideFold_mm * across))
            continue;
          result.through.push_back(
              {s.panel, f,
               m_assembly.symmetric ? Vec3(0, at.x(), at.y()) : Vec3(-at.y(), at.x(), 0)});
          break;
        }
      }
    }
  }

  /// A fold as it lies in the shut plane.
  struct Crease {
    FoldIndex fold;
    Vec2 from, to;
    Vec2 along() const { return (to - from).normalized(); }
    /// Rising numbers: creases on one line come after one another.
    std::array<double, 2> line() const {
      Vec2 u = along();
      if (u.x() < -kOneLine || (std::abs(u.x()) < kOneLine && u.y() < 0)) u = -u;
      return {std::atan2(u.y(), u.x()), cross2(u, from)};
    }
  };
  static constexpr double kOneLine = 1e-4;

  /// Of two folds on one line whose leaves lie on one another both leaves of the one lie between
  /// those of the other, or neither.
  void verifyNested(Stacking& result) const {
    std::vector<Crease> creases;
    for (FoldIndex f : m_assembly.folds.indices()) {
      const Fold& fold = m_assembly.folds[f];
      if (m_motion.shutAngle(f) == 0 || known(fold.left, fold.right) == 0) continue;
      const Iso3& pose = m_shut.panels[fold.left];
      creases.push_back({f, (pose * lift(fold.from)).tail<2>(), (pose * lift(fold.to)).tail<2>()});
    }
    std::ranges::sort(creases, {}, &Crease::line);
    for (std::size_t i = 0; i < creases.size(); ++i)
      for (std::size_t j = i + 1; j < creases.size(); ++j) {
        if (creases[j].line()[0] - creases[i].line()[0] > kOneLine) break;
        if (std::abs(creases[j].line()[1] - creases[i].line()[1]) < kBesideFold_mm)
          verifyPair(creases[i], creases[j], result);
      }
  }
  void verifyPair(const Crease& one, const Crease& other, Stacking& result) const {
    const Fold &f = m_assembly.folds[one.fold], &g = m_assembly.folds[other.fold];
    const Vec2 u = one.along();
    const auto [low, high] =
        std::minmax({u.dot(other.from - one.from), u.dot(other.to - one.from)});
    if (std::min(high, (one.to - one.from).norm()) - std::max(low, 0.0) < kBesideFold_mm) return;
    const int sides[] = {known(f.left, g.left), known(f.right, g.left), known(f.left, g.right),
                         known(f.right, g.right)};
    if (std::ranges::find(sides, 0) != std::end(sides)) return;
    // Sheets that are slotted into one another are over one another and under.
    for (const auto& [j, slot] : m_assembly.every<Slot>())
      for (PanelIndex a : {f.left, f.right})
        for (PanelIndex b : {g.left, g.right})
          if (std::minmax(a, b) == std::minmax(slot.first, slot.second)) return;
    if ((sides[0] != sides[1]) == (sides[2] != sides[3])) return;
    const Vec2 at = 0.5 * (one.from + one.to);
    result.through.push_back(
        {g.left, one.fold,
         m_assembly.symmetric ? Vec3(0, at.x(), at.y()) : Vec3(-at.y(), at.x(), 0)});
  }

  const Motion& m_motion;
  const Assembly& m_assembly;
  const Pose m_shut;
  std::stop_token m_stop;
  std::vector<Pose> m_poses;
  const Lying m_lying;
  std::vector<Sheet> m_sheets;
  std::map<std::pair<PanelIndex, PanelIndex>, int> m_order; ///< +1: the second lies above the first
  std::map<int, std::vector<int>> m_over;
  std::map<std::pair<int, int>, int> m_sides;
  std::map<int, std::vector<PanelIndex>>
      m_meets; ///< panels that a panel overlaps, whichever is above
};

} // namespace

Stacking stackShut(const Motion& motion, std::span<const SheetOrder> order, std::stop_token stop) {
  for (const auto& block : motion.blocks())
    if (block.low_rad > 0 || block.freedoms > 0 || block.shutMisfit_mm > 1e-3) return {};
  if (!motion.impossible().empty()) return {};
  return Stacker(motion, order, stop).run();
}

} // namespace hinge
