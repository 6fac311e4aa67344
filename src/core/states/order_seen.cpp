// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/order_seen.h"
#include "core/contact/swept.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <optional>

namespace hinge {
namespace {

/// Sine of the angle by which a leaf that has turned has left a plane.
constexpr double kHasLeft = 0.005;
/// What leaves a plane by less (mm) in a step tells nothing of its side.
constexpr double kTells_mm = 0.1;

class Seeing {
public:
  explicit Seeing(const SheetsInPlane& sheets) : m_sheets(sheets), m_assembly(sheets.assembly()) {
    gatherGluedOver();
  }

  SeenOrders run(std::stop_token stop) {
    for (std::size_t index = 0; index < m_sheets.moments().size(); ++index) {
      if (stop.stop_requested()) break;
      seeJoints(index), seeFoldedOver(index), seeMovers(index), seeRising(index);
      if (m_sheets.moments()[index].before >= 0) seeComing(index), seeGoing(index);
    }
    return std::move(m_found);
  }

private:
  void see(std::size_t moment, PanelIndex a, PanelIndex b, bool bAbove, const Vec3& up,
           double depth_mm, const Vec3& place) {
    OrderSolver::Literal fact = m_sheets.moments()[moment].above(a, b, up);
    if (!bAbove) fact = fact.contrary();
    m_found.orders.push_back({fact, a, b, depth_mm, moment, place});
  }

  /// What is joined flat to a side of a panel lies on that side.
  void seeJoints(std::size_t index) {
    const SheetMoment& m = m_sheets.moments()[index];
    for (const Joint& joint : m_assembly.joints) {
      if (tieOf(joint) || std::holds_alternative<Slot>(joint)) continue;
      const auto [first, second] = panelsOf(joint);
      const OnOneAnother* lying = m.lyingOf(first, second);
      if (!lying) continue;
      const Glue* glue = std::get_if<Glue>(&joint);
      const Pivot* pin = std::get_if<Pivot>(&joint);
      const bool onFace = glue  ? glue->onHostFace()
                          : pin ? pin->onFace()
                                : std::get<Slide>(joint).onFace();
      see(index, first, second, onFace, m.upOf(first), lying->width_mm(),
          m.middleOf(first, second));
    }
    for (const auto& [inner, outer, onFace, host] : m_gluedOver)
      if (const OnOneAnother* lying = m.lyingOf(inner, outer))
        if (m_sheets.isThere(host, m.pose) && m_sheets.areInPlane(m.pose, host, inner))
          see(index, inner, outer, onFace, m.upOf(host), lying->width_mm(),
              m.middleOf(inner, outer));
  }

  /// Of a fold that is folded over its mark says which leaf lies on the other's face.
  void seeFoldedOver(std::size_t index) {
    const SheetMoment& m = m_sheets.moments()[index];
    for (const Fold& fold : m_assembly.folds) {
      const OnOneAnother* lying = m.lyingOf(fold.left, fold.right);
      if (!lying || m.upOf(fold.left).dot(m.upOf(fold.right)) > 0) continue;
      const bool valley = fold.rest_rad ? *fold.rest_rad > 0 : fold.sense == FoldSense::Valley;
      see(index, fold.left, fold.right, valley, m.upOf(fold.left), lying->width_mm(),
          m.middleOf(fold.left, fold.right));
    }
  }

  /// Something that slides or turns on a face.
  struct Mover {
    const Guide* guide = nullptr;
    bool onFace = true;
  };
  static std::optional<Mover> moverOf(const Joint& joint) {
    if (const Pivot* pin = std::get_if<Pivot>(&joint)) return Mover{pin, pin->onFace()};
    if (const Slide* slide = std::get_if<Slide>(&joint)) return Mover{slide, slide->onFace()};
    return std::nullopt;
  }

  /// What slides or turns on a face lies over as many of the things glued there as its maker says,
  /// and under the rest; of two such things the one that lies over more.
  void seeMovers(std::size_t index) {
    const SheetMoment& m = m_sheets.moments()[index];
    std::vector<Mover> before;
    for (const Joint& joint : m_assembly.joints) {
      const auto mover = moverOf(joint);
      if (!mover) continue;
      const Guide& guide = *mover->guide;
      const bool onFace = mover->onFace;
      if (!m_sheets.isThere(guide.first, m.pose) ||
          !m_sheets.areInPlane(m.pose, guide.first, guide.second))
        continue;
      for (const Mover& other : before) {
        if (other.guide->first != guide.first || other.onFace != onFace) continue;
        const OnOneAnother* lying = m.lyingOf(other.guide->second, guide.second);
        if (!lying || other.guide->over == guide.over) continue;
        see(index, other.guide->second, guide.second, (guide.over > other.guide->over) == onFace,
            m.upOf(guide.first), lying->width_mm(), m.middleOf(other.guide->second, guide.second));
      }
      before.push_back(*mover);
      int below = guide.over;
      for (const auto& [j, glue] : m_assembly.every<Glue>()) {
        if (glue.host != guide.first || glue.onHostFace() != onFace || glue.tab == guide.second)
          continue;
        const OnOneAnother* lying = m.lyingOf(guide.second, glue.tab);
        if (!lying) continue;
        const bool tabAbove = below-- <= 0;
        see(index, guide.second, glue.tab, tabAbove == onFace, m.upOf(guide.first),
            lying->width_mm(), m.middleOf(guide.second, glue.tab));
      }
    }
  }

  /// How far a panel of a fold stands out of a plane through the fold, with its sign.
  double riseOf(const SheetMoment& m, PanelIndex leaf, const Vec3& up, const Vec3& from) const {
    double most = 0;
    for (const Vec2& p : m_assembly.panels[leaf].outline.rim) {
      const double h = up.dot(m.pose.panels[leaf] * lift(p) - from);
      if (std::abs(h) > std::abs(most)) most = h;
    }
    return most;
  }
  bool stands(const SheetMoment& m, PanelIndex leaf, const Vec3& up) const {
    return up.cross(m.upOf(leaf)).norm() > kHasLeft;
  }

  /// A leaf that rises from the plane does so clear of what lies across its fold; two leaves that
  /// rise to different sides of a sheet across their fold go through it.
  void seeRising(std::size_t index) {
    const SheetMoment& m = m_sheets.moments()[index];
    for (const auto& [f, k] : foldsMeeting(m)) {
      const Fold& fold = m_assembly.folds[f];
      const Vec3 from = m.pose.panels[fold.left] * lift(fold.from),
                 to = m.pose.panels[fold.left] * lift(fold.to), up = m.upOf(k);
      const bool leftStands = stands(m, fold.left, up), rightStands = stands(m, fold.right, up);
      if (!leftStands && !rightStands) continue;
      if (m_sheets.isSlotted(k, fold.left) || m_sheets.isSlotted(k, fold.right)) continue;
      const double past = m_sheets.reachesPast(m, k, from, to);
      if (past <= 0) continue;
      if (leftStands && rightStands) {
        const double one = riseOf(m, fold.left, up, from), other = riseOf(m, fold.right, up, from);
        if (one * other < 0)
          m_found.through.push_back({k, fold.left, std::min({past, std::abs(one), std::abs(other)}),
                                     index, 0.5 * (from + to)});
        continue;
      }
      const PanelIndex flat = leftStands ? fold.right : fold.left,
                       rising = leftStands ? fold.left : fold.right;
      if (m_sheets.together(flat, k) || !m.lyingOf(flat, k)) continue;
      const double rise = riseOf(m, rising, up, from);
      if (std::abs(rise) < kTells_mm) continue;
      // Above k in the direction in which the leaf rises there must be nothing of it: the flat leaf
      // lies on that side of k.
      see(index, k, flat, rise > 0, up, std::min(past, std::abs(rise)), 0.5 * (from + to));
      m_found.orders.back().second = rising; // whose way it is in
    }
  }

  /// Folds whose line comes to a panel that does not have them.
  std::vector<std::pair<FoldIndex, PanelIndex>> foldsMeeting(const SheetMoment& m) const {
    std::vector<SweptBox> boxes;
    const int panels = static_cast<int>(m_assembly.panels.size());
    const auto add = [&](int what, const auto& corners, const Iso3& pose) {
      SweptBox box;
      for (const Vec2& c : corners) {
        const Vec3 q = pose * lift(c);
        box.low = box.low.cwiseMin(q), box.high = box.high.cwiseMax(q);
      }
      box.low.array() -= kInPlane_mm, box.high.array() += kInPlane_mm;
      box.what = what;
      boxes.push_back(box);
    };
    for (PanelIndex p : m_assembly.panels.indices())
      if (m_sheets.isThere(p, m.pose))
        add(p.value, m_assembly.panels[p].outline.rim, m.pose.panels[p]);
    for (FoldIndex f : m_assembly.folds.indices()) {
      const Fold& fold = m_assembly.folds[f];
      if (m_sheets.isThere(fold.left, m.pose) && m_sheets.isThere(fold.right, m.pose))
        add(panels + f.value, std::array{fold.from, fold.to}, m.pose.panels[fold.left]);
    }
    std::vector<std::pair<FoldIndex, PanelIndex>> meeting;
    for (const auto& [a, b] : meetingBoxes(std::move(boxes))) {
      if (a >= panels || b < panels) continue;
      const FoldIndex f(b - panels);
      const PanelIndex k(a);
      const Fold& fold = m_assembly.folds[f];
      if (k == fold.left || k == fold.right) continue;
      if (!m_sheets.isWanted(k) && !m_sheets.isWanted(fold.left) && !m_sheets.isWanted(fold.right))
        continue;
      meeting.push_back({f, k});
    }
    return meeting;
  }

  /// How high the common paper of two that lie on one another at one moment stands at another: of
  /// the second over the first.
  double heightAt(const SheetMoment& lying, const SheetMoment& apart, const PanelPair& pair) const {
    const auto& [a, b] = pair;
    const Iso3 toB = inverseOf(lying.pose.panels[b]) * lying.pose.panels[a];
    double most = 0;
    for (const Region& part : lying.lying.at(pair)->common)
      for (const Vec2& p : part.rim) {
        const Vec3 there = apart.pose.panels[b] * (toB * lift(p));
        const double h = apart.upOf(a).dot(there - apart.pose.panels[a].translation());
        if (std::abs(h) > std::abs(most)) most = h;
      }
    return most;
  }

  /// Panels that had come from one side by this moment.
  void seeComing(std::size_t index) {
    const SheetMoment &now = m_sheets.moments()[index],
                      &before = m_sheets.moments()[static_cast<std::size_t>(now.before)];
    for (const auto& [pair, lying] : now.lying) {
      if (before.lying.contains(pair) || m_sheets.together(pair.first, pair.second)) continue;
      if (!m_sheets.isThere(pair.first, before.pose) || !m_sheets.isThere(pair.second, before.pose))
        continue;
      if (m_sheets.areInPlane(before.pose, pair.first, pair.second)) continue; // slid there
      const double h = heightAt(now, before, pair);
      if (std::abs(h) > kTells_mm)
        see(index, pair.first, pair.second, h > 0, now.upOf(pair.first),
            std::min(std::abs(h), lying->width_mm()), now.middleOf(pair.first, pair.second));
    }
  }
  /// Panels that have gone to one side since the moment before.
  void seeGoing(std::size_t index) {
    const SheetMoment& now = m_sheets.moments()[index];
    const auto at = static_cast<std::size_t>(now.before);
    const SheetMoment& before = m_sheets.moments()[at];
    for (const auto& [pair, lying] : before.lying) {
      if (now.lying.contains(pair) || m_sheets.together(pair.first, pair.second)) continue;
      if (!m_sheets.isThere(pair.first, now.pose) || !m_sheets.isThere(pair.second, now.pose))
        continue;
      if (m_sheets.areInPlane(now.pose, pair.first, pair.second)) continue; // slid away
      const double h = heightAt(before, now, pair);
      if (std::abs(h) <= kTells_mm) continue;
      OrderSolver::Literal fact = before.above(pair.first, pair.second, before.upOf(pair.first));
      if (h < 0) fact = fact.contrary();
      m_found.orders.push_back({fact, pair.first, pair.second, lying->width_mm(), index,
                                before.middleOf(pair.first, pair.second)});
    }
  }

  struct GluedOver {
    PanelIndex inner, outer;
    bool onFace; ///< of the host
    PanelIndex host;
  };

  /// Of two that are glued to one side of a panel, the one whose place there the other covers whole
  /// was glued first and lies under it.
  void gatherGluedOver() {
    struct On {
      PanelIndex panel;
      bool onFace;
      std::vector<Region> there;
    };
    std::map<PanelIndex, std::vector<On>> on;
    for (const auto& [j, glue] : m_assembly.every<Glue>()) {
      std::vector<Region> onTab, onHost;
      const Region host = mapped(m_assembly.panels[glue.host].outline, inverseOf(glue.tabToHost));
      for (const Region& glued : gluedOf(m_assembly, glue))
        for (Region& part : common(glued, host)) {
          onHost.push_back(mapped(part, glue.tabToHost));
          onTab.push_back(std::move(part));
        }
      on[glue.tab].push_back({glue.host, glue.byFace, std::move(onTab)});
      on[glue.host].push_back({glue.tab, glue.onHostFace(), std::move(onHost)});
    }
    const auto size = [](const std::vector<Region>& parts) {
      double sum = 0;
      for (const Region& part : parts)
        sum += area_mm2(part);
      return sum;
    };
    for (const auto& [host, all] : on)
      for (const On& inner : all)
        for (const On& outer : all) {
          if (inner.panel == outer.panel || inner.onFace != outer.onFace) continue;
          if (size(outer.there) < 1.5 * size(inner.there)) continue;
          double covered = 0;
          for (const Region& a : inner.there)
            for (const Region& b : outer.there)
              covered += overlapArea_mm2(a, b);
          if (covered > 0.9 * size(inner.there))
            m_gluedOver.push_back({inner.panel, outer.panel, inner.onFace, host});
        }
  }

  const SheetsInPlane& m_sheets;
  const Assembly& m_assembly;
  std::vector<GluedOver> m_gluedOver;
  SeenOrders m_found;
};

} // namespace

SeenOrders seenOrders(const SheetsInPlane& sheets, std::stop_token stop) {
  return Seeing(sheets).run(stop);
}

} // namespace hinge
