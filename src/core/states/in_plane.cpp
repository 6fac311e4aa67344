// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/in_plane.h"
#include "core/contact/swept.h"
#include "core/motion/openings.h"
#include "core/states/lift.h"
#include "core/states/order_solver.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <map>
#include <memory>
#include <set>

namespace hinge {
namespace {

/// Paper that is farther than this (mm) from a plane does not lie in it.
constexpr double kInPlane_mm = 0.02;
/// Sine below which two panels are of one direction; a leaf that has turned by more has left.
constexpr double kOneWay = 1e-4, kHasLeft = 0.005;
/// What leaves a plane by less (mm) in a step tells nothing of its side.
constexpr double kTells_mm = 0.1;
/// Paper reaches past a line when it does so by this much (mm) on both sides.
constexpr double kPast_mm = 0.5;
constexpr double kStep_rad = radians(4);
/// The exact ends are left out by this much.
constexpr double kBesideEnd_rad = radians(0.05);

using PanelPair = std::pair<PanelIndex, PanelIndex>; ///< the lower number first

PanelPair ordered(PanelIndex a, PanelIndex b) {
  return a < b ? PanelPair{a, b} : PanelPair{b, a};
}

/// Two panels that lie on one another at a moment.
struct OnOneAnother {
  int statement = 0;          ///< that the second lies on the face of the first
  std::vector<Region> common; ///< in the flat frame of the first
  double area_mm2 = 0;
};

/// One opening, or a place on the way of a hand.
struct Moment {
  Pose pose;
  int before = -1; ///< the moment from which it is reached; -1: the first
  int hand = 0;    ///< number of the lift whose way it is on, from 1; 0: the card's own way
  std::map<PanelPair, std::shared_ptr<const OnOneAnother>> lying;
  std::map<PanelIndex, std::vector<PanelIndex>> beside; ///< what each lies on, or under
};

/// Something seen that decides a statement, with what it is to be told by.
struct Seen {
  OrderSolver::Literal fact;
  PanelIndex first, second;
  double depth_mm = 0;
  std::size_t moment = 0;
  Vec3 place = Vec3::Zero();
};

class InPlaneSearch {
public:
  InPlaneSearch(const Motion& motion, const InPlaneOptions& options, std::stop_token stop)
      : m_motion(motion), m_assembly(motion.assembly()), m_options(options), m_stop(stop) {
    gatherGroups();
    gatherHosts();
  }

  InPlaneReport run() {
    for (double t : openings()) {
      if (m_stop.stop_requested()) return {};
      addMoment(m_motion.poseAt(t), m_last, 0);
      m_last = static_cast<int>(m_moments.size()) - 1;
      if (t >= m_options.shown_rad - 1e-9) m_shown.push_back(m_last);
    }
    addHands();
    for (std::size_t m = 0; m < m_moments.size(); ++m) {
      if (m_stop.stop_requested()) return {};
      lookAt(m);
    }
    decide();
    return std::move(m_report);
  }

private:
  // --- What goes together
  // ---------------------------------------------------------------------------

  /// Glue, held folds and paper that comes made keep panels together; what a hand moves is not.
  void gatherGroups() {
    for (PanelIndex p : m_assembly.panels.indices())
      m_group.push(p.value);
    IndexedVector<PanelIndex, char> lifted;
    lifted.assign(m_assembly.panels.size(), 0);
    for (const Lift& lift : m_assembly.lifts)
      for (PanelIndex p : lift.panels)
        lifted[p] = 1;
    const auto unite = [&](PanelIndex a, PanelIndex b) {
      const int from = m_group[b], to = m_group[a];
      if (from == to) return;
      for (int& group : m_group)
        if (group == from) group = to;
    };
    for (const auto& [j, glue] : m_assembly.every<Glue>())
      unite(glue.host, glue.tab);
    for (const Fold& fold : m_assembly.folds)
      if (fold.rest_rad && lifted[fold.left] == lifted[fold.right]) unite(fold.left, fold.right);
    for (const Carried& carried : m_assembly.carried)
      if (lifted[carried.host] == lifted[carried.panel]) unite(carried.host, carried.panel);
  }
  bool together(PanelIndex a, PanelIndex b) const { return m_group[a] == m_group[b]; }

  bool isThere(PanelIndex p, const Pose& pose) const {
    return pose.placed[p] && !m_motion.isLoose(p);
  }
  bool isWanted(PanelIndex p) const {
    const auto& owner = m_assembly.panels[p].owner;
    return m_options.only.empty() ||
           (owner && std::ranges::find(m_options.only, *owner) != m_options.only.end());
  }

  // --- Moments
  // --------------------------------------------------------------------------------------

  std::vector<double> openings() const {
    std::vector<double> all = openingsToLookAt(m_assembly, kStep_rad);
    const double low = m_motion.low_rad(), high = m_motion.high_rad();
    std::erase_if(
        all, [&](double t) { return t <= low + kBesideEnd_rad || t >= high - kBesideEnd_rad; });
    if (high - low > 2 * kBesideEnd_rad) {
      all.insert(all.begin(), low + kBesideEnd_rad);
      all.push_back(high - kBesideEnd_rad);
    }
    return all;
  }

  /// Hands move things in a card that is open as it is shown, or farther.
  void addHands() {
    constexpr int kMostOpenings = 3, kSteps = 24;
    if (m_shown.empty() && m_last >= 0) m_shown = {m_last};
    std::set<int> at;
    for (int k = 0; k < kMostOpenings && !m_shown.empty(); ++k)
      at.insert(m_shown[(m_shown.size() - 1) * static_cast<std::size_t>(k) / (kMostOpenings - 1)]);
    int hand = 0;
    for (const Lift& lift : m_assembly.lifts)
      for (const int from : at) {
        ++hand;
        m_liftOfHand.push_back(&lift);
        int before = from;
        for (int k = 1; k <= kSteps && !m_stop.stop_requested(); ++k) {
          const Pose& rest = m_moments[static_cast<std::size_t>(from)].pose;
          addMoment(lifted(m_assembly, rest, lift, static_cast<double>(k) / kSteps), before, hand);
          before = static_cast<int>(m_moments.size()) - 1;
        }
      }
  }

  void addMoment(Pose pose, int before, int hand) {
    Moment moment{std::move(pose), before, hand, {}, {}};
    for (const PanelPair& pair : pairsInPlane(moment.pose)) {
      auto lying = lyingAt(moment, pair);
      if (lying->area_mm2 <= kLeastOverlap_mm2) continue;
      moment.beside[pair.first].push_back(pair.second);
      moment.beside[pair.second].push_back(pair.first);
      moment.lying.emplace(pair, std::move(lying));
    }
    m_moments.push_back(std::move(moment));
  }

  /// Panels that go together lie as they do; they matter only where both lie on something else too.
  std::vector<PanelPair> pairsInPlane(const Pose& pose) const {
    std::vector<SweptBox> boxes;
    for (PanelIndex p : m_assembly.panels.indices()) {
      if (!isThere(p, pose)) continue;
      SweptBox box;
      for (const Vec2& c : m_assembly.panels[p].outline.rim) {
        const Vec3 q = pose.panels[p] * lift(c);
        box.low = box.low.cwiseMin(q), box.high = box.high.cwiseMax(q);
      }
      box.low.array() -= kInPlane_mm, box.high.array() += kInPlane_mm;
      box.what = p.value;
      boxes.push_back(box);
    }
    std::vector<PanelPair> pairs, within;
    std::set<PanelIndex> onOthers;
    for (const auto& [a, b] : meetingBoxes(std::move(boxes))) {
      const PanelPair pair{PanelIndex(a), PanelIndex(b)};
      if (!isWanted(pair.first) && !isWanted(pair.second)) continue;
      if (!areInPlane(pose, pair.first, pair.second)) continue;
      if (together(pair.first, pair.second)) {
        within.push_back(pair);
      } else {
        pairs.push_back(pair);
        onOthers.insert(pair.first), onOthers.insert(pair.second);
      }
    }
    for (const PanelPair& pair : within)
      if (onOthers.contains(pair.first) && onOthers.contains(pair.second)) pairs.push_back(pair);
    return pairs;
  }

  bool areInPlane(const Pose& pose, PanelIndex a, PanelIndex b) const {
    const Vec3 na = pose.panels[a].linear().col(2), nb = pose.panels[b].linear().col(2);
    if (na.cross(nb).norm() > kOneWay) return false;
    return std::ranges::all_of(m_assembly.panels[b].outline.rim, [&](const Vec2& p) {
      return std::abs(na.dot(pose.panels[b] * lift(p) - pose.panels[a].translation())) <
             kInPlane_mm;
    });
  }

  /// What they have in common, as it was in the moment before when neither has moved against the
  /// other; then it is one statement too.
  std::shared_ptr<const OnOneAnother> lyingAt(const Moment& now, const PanelPair& pair) {
    const auto& [a, b] = pair;
    const Iso3 bInA = inverseOf(now.pose.panels[a]) * now.pose.panels[b];
    const OnOneAnother* was = nullptr;
    if (now.before >= 0) {
      const Moment& before = m_moments[static_cast<std::size_t>(now.before)];
      const auto known = before.lying.find(pair);
      if (known != before.lying.end()) {
        was = known->second.get();
        const Iso3 then = inverseOf(before.pose.panels[a]) * before.pose.panels[b];
        if ((then.matrix() - bInA.matrix()).cwiseAbs().maxCoeff() < kTouch_mm) return known->second;
      }
    }
    auto lying = std::make_shared<OnOneAnother>();
    lying->common =
        common(m_assembly.panels[a].outline, mapped(m_assembly.panels[b].outline, bInA));
    for (const Region& part : lying->common)
      lying->area_mm2 += area_mm2(part);
    if (lying->area_mm2 > kLeastOverlap_mm2)
      lying->statement = was ? was->statement : m_solver.addStatement();
    return lying;
  }

  // --- Statements at a moment
  // -------------------------------------------------------------------------

  const OnOneAnother* lyingOf(const Moment& m, PanelIndex a, PanelIndex b) const {
    const auto it = m.lying.find(ordered(a, b));
    return it == m.lying.end() ? nullptr : it->second.get();
  }
  /// "b lies above a" in a direction.
  OrderSolver::Literal above(const Moment& m, PanelIndex a, PanelIndex b, const Vec3& up) const {
    const PanelPair pair = ordered(a, b);
    const bool along = m.pose.panels[pair.first].linear().col(2).dot(up) > 0;
    return {m.lying.at(pair)->statement, along == (a == pair.first)};
  }
  static Vec3 upOf(const Moment& m, PanelIndex p) { return m.pose.panels[p].linear().col(2); }

  void lookAt(std::size_t index) {
    const Moment& m = m_moments[index];
    seeJoints(index), seeFoldedOver(index), seeMovers(index), seeRising(index);
    if (m.before >= 0) seeComing(index), seeGoing(index);
    tieGlue(m), tieFolds(m), tieNested(m), tieThree(m);
  }

  void see(std::size_t moment, PanelIndex a, PanelIndex b, bool bAbove, const Vec3& up,
           double depth_mm, const Vec3& place) {
    OrderSolver::Literal fact = above(m_moments[moment], a, b, up);
    if (!bAbove) fact = fact.contrary();
    m_seen.push_back({fact, a, b, depth_mm, moment, place});
  }
  /// The middle of what two have in common, and about how wide that is.
  Vec3 middleOf(const Moment& m, PanelIndex a, PanelIndex b) const {
    const PanelPair pair = ordered(a, b);
    const OnOneAnother& lying = *m.lying.at(pair);
    return m.pose.panels[pair.first] * lift(centroidOf(lying.common.front()));
  }
  static double widthOf(const OnOneAnother& lying) { return std::sqrt(lying.area_mm2); }

  /// What is joined flat to a side of a panel lies on that side.
  void seeJoints(std::size_t index) {
    const Moment& m = m_moments[index];
    for (const Joint& joint : m_assembly.joints) {
      if (tieOf(joint) || std::holds_alternative<Slot>(joint)) continue;
      const auto [first, second] = panelsOf(joint);
      const OnOneAnother* lying = lyingOf(m, first, second);
      if (!lying) continue;
      const Glue* glue = std::get_if<Glue>(&joint);
      const Pivot* pin = std::get_if<Pivot>(&joint);
      const bool onFace = glue  ? glue->onHostFace()
                          : pin ? pin->onFace()
                                : std::get<Slide>(joint).onFace();
      see(index, first, second, onFace, upOf(m, first), widthOf(*lying),
          middleOf(m, first, second));
    }
    for (const auto& [inner, outer, onFace, host] : m_gluedOver)
      if (const OnOneAnother* lying = lyingOf(m, inner, outer))
        if (isThere(host, m.pose) && areInPlane(m.pose, host, inner))
          see(index, inner, outer, onFace, upOf(m, host), widthOf(*lying),
              middleOf(m, inner, outer));
  }

  /// Of a fold that is folded over its mark says which leaf lies on the other's face.
  void seeFoldedOver(std::size_t index) {
    const Moment& m = m_moments[index];
    for (const Fold& fold : m_assembly.folds) {
      const OnOneAnother* lying = lyingOf(m, fold.left, fold.right);
      if (!lying || upOf(m, fold.left).dot(upOf(m, fold.right)) > 0) continue;
      const bool valley = fold.rest_rad ? *fold.rest_rad > 0 : fold.sense == FoldSense::Valley;
      see(index, fold.left, fold.right, valley, upOf(m, fold.left), widthOf(*lying),
          middleOf(m, fold.left, fold.right));
    }
  }

  /// What slides or turns on a face lies over as many of the things glued there as its maker says,
  /// and under the rest.
  void seeMovers(std::size_t index) {
    const Moment& m = m_moments[index];
    for (const Joint& joint : m_assembly.joints) {
      const Pivot* pin = std::get_if<Pivot>(&joint);
      const Slide* slide = std::get_if<Slide>(&joint);
      if (!pin && !slide) continue;
      const Guide& guide = *guideOf(joint);
      const bool onFace = pin ? pin->onFace() : slide->onFace();
      if (!isThere(guide.first, m.pose) || !areInPlane(m.pose, guide.first, guide.second)) continue;
      int below = guide.over;
      for (const auto& [j, glue] : m_assembly.every<Glue>()) {
        if (glue.host != guide.first || glue.onHostFace() != onFace || glue.tab == guide.second)
          continue;
        const OnOneAnother* lying = lyingOf(m, guide.second, glue.tab);
        if (!lying) continue;
        const bool tabAbove = below-- <= 0;
        see(index, guide.second, glue.tab, tabAbove == onFace, upOf(m, guide.first),
            widthOf(*lying), middleOf(m, guide.second, glue.tab));
      }
    }
  }

  /// How far a panel of a fold stands out of a plane through the fold, with its sign.
  double riseOf(const Moment& m, PanelIndex leaf, const Vec3& up, const Vec3& from) const {
    double most = 0;
    for (const Vec2& p : m_assembly.panels[leaf].outline.rim) {
      const double h = up.dot(m.pose.panels[leaf] * lift(p) - from);
      if (std::abs(h) > std::abs(most)) most = h;
    }
    return most;
  }
  bool stands(const Moment& m, PanelIndex leaf, const Vec3& up) const {
    return up.cross(upOf(m, leaf)).norm() > kHasLeft;
  }

  /// How far a panel has paper past a line on its lesser side; 0: it ends there, or beside it.
  double reachesPast(const Moment& m, PanelIndex k, const Vec3& from, const Vec3& to) const {
    const Iso3 home = inverseOf(m.pose.panels[k]);
    const Vec3 a3 = home * from, b3 = home * to;
    if (std::abs(a3.z()) > kInPlane_mm || std::abs(b3.z()) > kInPlane_mm) return 0;
    const Vec2 a = a3.head<2>(), b = b3.head<2>();
    if ((b - a).norm() < kPast_mm) return 0;
    const Vec2 along = (b - a).normalized(), across(-along.y(), along.x());
    const Region& paper = m_assembly.panels[k].outline;
    double most = 0;
    for (const double share : {0.1, 0.3, 0.5, 0.7, 0.9}) {
      const Vec2 at = a + share * (b - a);
      if (!contains(paper, at) || !contains(paper, at + kPast_mm * across) ||
          !contains(paper, at - kPast_mm * across))
        continue;
      const double up = reachInside(paper.rim, at, across),
                   down = reachInside(paper.rim, at, -across);
      most = std::max(most, std::max(kPast_mm, std::min(up, down)));
    }
    return most;
  }

  bool isSlotted(PanelIndex a, PanelIndex b) const { return m_slotted.contains(ordered(a, b)); }

  /// A leaf that rises from the plane does so clear of what lies across its fold; two leaves that
  /// rise to different sides of a sheet across their fold go through it.
  void seeRising(std::size_t index) {
    const Moment& m = m_moments[index];
    for (const auto& [f, k] : foldsMeeting(m)) {
      const Fold& fold = m_assembly.folds[f];
      const Vec3 from = m.pose.panels[fold.left] * lift(fold.from),
                 to = m.pose.panels[fold.left] * lift(fold.to), up = upOf(m, k);
      const bool leftStands = stands(m, fold.left, up), rightStands = stands(m, fold.right, up);
      if (!leftStands && !rightStands) continue;
      if (isSlotted(k, fold.left) || isSlotted(k, fold.right)) continue;
      const double past = reachesPast(m, k, from, to);
      if (past <= 0) continue;
      if (leftStands && rightStands) {
        const double one = riseOf(m, fold.left, up, from), other = riseOf(m, fold.right, up, from);
        if (one * other < 0)
          note(k, fold.left, std::min({past, std::abs(one), std::abs(other)}), index,
               0.5 * (from + to));
        continue;
      }
      const PanelIndex flat = leftStands ? fold.right : fold.left,
                       rising = leftStands ? fold.left : fold.right;
      if (together(flat, k) || !lyingOf(m, flat, k)) continue;
      const double rise = riseOf(m, rising, up, from);
      if (std::abs(rise) < kTells_mm) continue;
      // Above k in the direction in which the leaf rises there must be nothing of it: the flat leaf
      // lies on that side of k.
      see(index, k, flat, rise > 0, up, std::min(past, std::abs(rise)), 0.5 * (from + to));
      m_seen.back().second = rising; // whose way it is in
    }
  }

  /// Folds whose line comes to a panel that does not have them.
  std::vector<std::pair<FoldIndex, PanelIndex>> foldsMeeting(const Moment& m) const {
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
      if (isThere(p, m.pose)) add(p.value, m_assembly.panels[p].outline.rim, m.pose.panels[p]);
    for (FoldIndex f : m_assembly.folds.indices()) {
      const Fold& fold = m_assembly.folds[f];
      if (isThere(fold.left, m.pose) && isThere(fold.right, m.pose))
        add(panels + f.value, std::array{fold.from, fold.to}, m.pose.panels[fold.left]);
    }
    std::vector<std::pair<FoldIndex, PanelIndex>> meeting;
    for (const auto& [a, b] : meetingBoxes(std::move(boxes))) {
      if (a >= panels || b < panels) continue;
      const FoldIndex f(b - panels);
      const PanelIndex k(a);
      const Fold& fold = m_assembly.folds[f];
      if (k == fold.left || k == fold.right) continue;
      if (!isWanted(k) && !isWanted(fold.left) && !isWanted(fold.right)) continue;
      meeting.push_back({f, k});
    }
    return meeting;
  }

  /// How high the common paper of two that lie on one another at one moment stands at another: of
  /// the second over the first.
  double heightAt(const Moment& lying, const Moment& apart, const PanelPair& pair) const {
    const auto& [a, b] = pair;
    const Iso3 toB = inverseOf(lying.pose.panels[b]) * lying.pose.panels[a];
    double most = 0;
    for (const Region& part : lying.lying.at(pair)->common)
      for (const Vec2& p : part.rim) {
        const Vec3 there = apart.pose.panels[b] * (toB * lift(p));
        const double h = upOf(apart, a).dot(there - apart.pose.panels[a].translation());
        if (std::abs(h) > std::abs(most)) most = h;
      }
    return most;
  }

  /// Panels that had come from one side by this moment.
  void seeComing(std::size_t index) {
    const Moment &now = m_moments[index], &before = m_moments[static_cast<std::size_t>(now.before)];
    for (const auto& [pair, lying] : now.lying) {
      if (before.lying.contains(pair) || together(pair.first, pair.second)) continue;
      if (!isThere(pair.first, before.pose) || !isThere(pair.second, before.pose)) continue;
      if (areInPlane(before.pose, pair.first, pair.second)) continue; // slid there
      const double h = heightAt(now, before, pair);
      if (std::abs(h) > kTells_mm)
        see(index, pair.first, pair.second, h > 0, upOf(now, pair.first),
            std::min(std::abs(h), widthOf(*lying)), middleOf(now, pair.first, pair.second));
    }
  }
  /// Panels that have gone to one side since the moment before.
  void seeGoing(std::size_t index) {
    const Moment& now = m_moments[index];
    const auto at = static_cast<std::size_t>(now.before);
    const Moment& before = m_moments[at];
    for (const auto& [pair, lying] : before.lying) {
      if (now.lying.contains(pair) || together(pair.first, pair.second)) continue;
      if (!isThere(pair.first, now.pose) || !isThere(pair.second, now.pose)) continue;
      if (areInPlane(now.pose, pair.first, pair.second)) continue; // slid away
      const double h = heightAt(before, now, pair);
      if (std::abs(h) <= kTells_mm) continue;
      OrderSolver::Literal fact = above(before, pair.first, pair.second, upOf(before, pair.first));
      if (h < 0) fact = fact.contrary();
      m_seen.push_back({fact, pair.first, pair.second, widthOf(*lying), index,
                        middleOf(before, pair.first, pair.second)});
    }
  }

  // --- What ties statements together
  // --------------------------------------------------------------------

  /// k lies over both or under both.
  void tieAlike(const Moment& m, PanelIndex k, PanelIndex a, PanelIndex b) {
    const Vec3 up = upOf(m, k);
    const auto one = above(m, k, a, up), other = above(m, k, b, up);
    const std::array key{one.statement, other.statement, one.holds == other.holds ? 1 : 0, m.hand};
    if (m_tied.insert(key).second) m_solver.addEven({one, other}, m.hand);
  }

  /// Where glue is nothing else is; what goes with both may have been glued in between, and what
  /// slides under the front of a pocket does so beside its glue.
  void tieGlue(const Moment& m) {
    for (const auto& [j, glue] : m_assembly.every<Glue>()) {
      if (!lyingOf(m, glue.host, glue.tab)) continue;
      for (PanelIndex k : neighbours(m, glue.tab)) {
        if (k == glue.host || together(k, glue.host) || !lyingOf(m, k, glue.host)) continue;
        if (m_assembly.panels[glue.tab].use == PanelUse::Wall && slidesOn(k, glue.host)) continue;
        if (meetsGlue(m, glue, k)) tieAlike(m, k, glue.host, glue.tab);
      }
    }
  }
  bool meetsGlue(const Moment& m, const Glue& glue, PanelIndex k) const {
    const Iso3 toTab = inverseOf(m.pose.panels[glue.tab]);
    const Region other = mapped(m_assembly.panels[k].outline, toTab * m.pose.panels[k]),
                 host =
                     mapped(m_assembly.panels[glue.host].outline, toTab * m.pose.panels[glue.host]);
    double area = 0;
    for (const Region& glued : gluedOf(m_assembly, glue))
      for (const Region& held : common(glued, host))
        for (const Region& part : common(held, other))
          area += area_mm2(part);
    return area > kLeastOverlap_mm2;
  }
  bool slidesOn(PanelIndex k, PanelIndex host) const {
    const auto& panels = m_assembly.pieces[m_assembly.panels[k].piece].panels;
    for (const auto& [j, slide] : m_assembly.every<Slide>())
      if (slide.first == host && std::ranges::any_of(panels, [&, &s = slide](PanelIndex p) {
            return together(p, s.second); // a strap round it goes along
          }))
        return true;
    return false;
  }

  static std::vector<PanelIndex> neighbours(const Moment& m, PanelIndex p) {
    const auto it = m.beside.find(p);
    return it == m.beside.end() ? std::vector<PanelIndex>() : it->second;
  }

  /// Nothing that has paper on both sides of a fold lies between its leaves, be they folded over or
  /// flat.
  void tieFolds(const Moment& m) {
    for (const Fold& fold : m_assembly.folds) {
      if (!isThere(fold.left, m.pose) || !isThere(fold.right, m.pose)) continue;
      if (!areInPlane(m.pose, fold.left, fold.right)) continue;
      const Vec3 from = m.pose.panels[fold.left] * lift(fold.from),
                 to = m.pose.panels[fold.left] * lift(fold.to);
      for (PanelIndex k : neighbours(m, fold.left)) {
        if (k == fold.right || !lyingOf(m, k, fold.right)) continue;
        if (together(k, fold.left) && together(k, fold.right)) continue;
        if (reachesPast(m, k, from, to) > 0) tieAlike(m, k, fold.left, fold.right);
      }
    }
  }

  /// Two folds on one line are one within the other, or beside one another.
  void tieNested(const Moment& m) {
    std::vector<const Fold*> over;
    for (const Fold& fold : m_assembly.folds)
      if (lyingOf(m, fold.left, fold.right) && upOf(m, fold.left).dot(upOf(m, fold.right)) < 0)
        over.push_back(&fold);
    for (std::size_t i = 0; i < over.size(); ++i)
      for (std::size_t j = i + 1; j < over.size(); ++j) {
        const Fold &f = *over[i], &g = *over[j];
        const PanelIndex four[] = {f.left, f.right, g.left, g.right};
        if (std::set<PanelIndex>(four, four + 4).size() < 4) continue;
        bool all = areOnOneLine(m, f, g);
        for (int k = 0; k < 4 && all; ++k)
          all =
              lyingOf(m, four[k / 2], four[2 + k % 2]) && !isSlotted(four[k / 2], four[2 + k % 2]);
        if (!all) continue;
        const Vec3 up = upOf(m, f.left);
        std::vector<OrderSolver::Literal> between;
        std::array<int, 4> key{};
        for (int k = 0; k < 4; ++k) {
          between.push_back(above(m, four[k / 2], four[2 + k % 2], up));
          key[static_cast<std::size_t>(k)] = between.back().statement;
        }
        if (m_nested.insert({key, m.hand}).second) m_solver.addEven(std::move(between), m.hand);
      }
  }
  bool areOnOneLine(const Moment& m, const Fold& f, const Fold& g) const {
    const Vec3 a = m.pose.panels[f.left] * lift(f.from), b = m.pose.panels[f.left] * lift(f.to),
               c = m.pose.panels[g.left] * lift(g.from), d = m.pose.panels[g.left] * lift(g.to);
    const Vec3 along = (b - a).normalized();
    if (along.cross(c - a).norm() > kInPlane_mm || along.cross(d - a).norm() > kInPlane_mm)
      return false;
    const auto [low, high] = std::minmax({along.dot(c - a), along.dot(d - a)});
    return std::min(high, (b - a).norm()) - std::max(low, 0.0) > kPast_mm;
  }

  /// Of three on one another none lies over one and under that.
  void tieThree(const Moment& m) {
    std::map<PanelIndex, std::vector<PanelIndex>> beside;
    for (const auto& [pair, lying] : m.lying)
      beside[pair.first].push_back(pair.second); // the higher numbers, rising
    for (const auto& [a, more] : beside)
      for (std::size_t i = 0; i < more.size(); ++i)
        for (std::size_t j = i + 1; j < more.size(); ++j) {
          const PanelIndex b = more[i], c = more[j];
          if (!lyingOf(m, b, c) || (together(a, b) && together(b, c))) continue;
          const Vec3 up = upOf(m, a);
          const auto ab = above(m, a, b, up), bc = above(m, b, c, up), ca = above(m, c, a, up);
          const std::array key{ab.statement, bc.statement, ca.statement, m.hand};
          if (m_three.contains(key) || !haveCommon(m, a, b, c)) continue;
          m_three.insert(key);
          m_solver.addUnlike(ab, bc, ca, m.hand);
        }
  }
  bool haveCommon(const Moment& m, PanelIndex a, PanelIndex b, PanelIndex c) const {
    const Region third =
        mapped(m_assembly.panels[c].outline, inverseOf(m.pose.panels[a]) * m.pose.panels[c]);
    double area = 0;
    for (const Region& part : m.lying.at({a, b})->common)
      for (const Region& all : common(part, third))
        area += area_mm2(all);
    return area > kLeastOverlap_mm2;
  }

  // --- What is glued over what
  // ----------------------------------------------------------------------------

  struct GluedOver {
    PanelIndex inner, outer;
    bool onFace; ///< of the host
    PanelIndex host;
  };

  /// Of two that are glued to one side of a panel, the one whose place there the other covers whole
  /// was glued first and lies under it.
  void gatherHosts() {
    for (const auto& [j, slot] : m_assembly.every<Slot>())
      m_slotted.insert(ordered(slot.first, slot.second));
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

  // --- Is there an order?
  // -------------------------------------------------------------------------------------

  void note(PanelIndex first, PanelIndex second, double depth_mm, std::size_t moment,
            const Vec3& place) {
    const Moment& m = m_moments[moment];
    const auto same = std::ranges::find_if(m_report.hits, [&](const InPlaneHit& hit) {
      return ordered(hit.first, hit.second) == ordered(first, second);
    });
    const double at = m.pose.opening_rad;
    const InPlaneHit hit{first, second, depth_mm, at, at, at, place, m.hand != 0};
    if (same == m_report.hits.end()) {
      m_report.hits.push_back(hit);
      return;
    }
    const double from = std::min(same->from_rad, at), to = std::max(same->to_rad, at);
    if (depth_mm > same->depth_mm) *same = hit;
    same->from_rad = from, same->to_rad = to;
  }

  /// Facts are taken one by one, those of the card's own way first: what contradicts the ones
  /// before it is where paper would pass through paper.
  void decide() {
    constexpr int kTries = 20000;
    OrderSolver::Known known = m_solver.nothing();
    takeOf(0, known);
    if (m_solver.canBeDecided(known, kTries) == OrderSolver::Found::CutOff)
      m_report.decided = false;
    std::vector<OrderSolver::Known> afterwards;
    for (int hand = 1; hand <= static_cast<int>(m_liftOfHand.size()); ++hand) {
      OrderSolver::Known there = known;
      m_solver.settle(there, hand);
      takeOf(hand, there);
      afterwards.push_back(std::move(there));
    }
    for (int one = 1; one <= static_cast<int>(afterwards.size()); ++one)
      for (int other = one + 1; other <= static_cast<int>(afterwards.size()); ++other)
        if (m_liftOfHand[static_cast<std::size_t>(one - 1)] !=
            m_liftOfHand[static_cast<std::size_t>(other - 1)])
          lookAtBoth(one, other, afterwards[static_cast<std::size_t>(one - 1)]);
  }

  /// Whether what one hand shows of the order leaves room for another's way.
  void lookAtBoth(int one, int other, OrderSolver::Known known) {
    if (startOf(one) != startOf(other)) return;
    m_solver.settle(known, other);
    for (const Seen& seen : m_seen) {
      if (m_moments[seen.moment].hand != other || m_solver.take(seen.fact, known, other)) continue;
      const auto told = [&](const InPlaneHit& hit) {
        return ordered(hit.first, hit.second) == ordered(seen.first, seen.second);
      };
      if (std::ranges::any_of(m_report.hits, told)) continue; // neither can move
      m_report.inTurn.push_back({seen.first, seen.second});
      return;
    }
  }
  /// The moment from which a hand sets out.
  int startOf(int hand) const {
    for (const Moment& m : m_moments)
      if (m.hand == hand) return m.before;
    return -1;
  }
  void takeOf(int hand, OrderSolver::Known& known) {
    for (const Seen& seen : m_seen)
      if (m_moments[seen.moment].hand == hand && !m_solver.take(seen.fact, known, hand))
        note(seen.first, seen.second, seen.depth_mm, seen.moment, seen.place);
  }

  const Motion& m_motion;
  const Assembly& m_assembly;
  InPlaneOptions m_options;
  std::stop_token m_stop;
  IndexedVector<PanelIndex, int> m_group;
  std::vector<GluedOver> m_gluedOver;
  std::set<PanelPair> m_slotted;
  std::vector<Moment> m_moments;
  std::vector<int> m_shown;              ///< moments at which hands move things
  std::vector<const Lift*> m_liftOfHand; ///< by number, from 1
  int m_last = -1;
  OrderSolver m_solver;
  std::vector<Seen> m_seen;
  std::set<std::array<int, 4>> m_tied, m_three;
  std::set<std::pair<std::array<int, 4>, int>> m_nested;
  InPlaneReport m_report;
};

} // namespace

InPlaneReport findInPlaneHits(const Motion& motion, const InPlaneOptions& options,
                              std::stop_token stop) {
  return InPlaneSearch(motion, options, stop).run();
}

} // namespace hinge
