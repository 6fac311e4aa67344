// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/step_scene.h"
#include "core/units/length.h"
#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace hinge {
namespace {

constexpr double kHeldOpen_deg = 75; ///< of a card that is about to be shut on something
constexpr double kHardly_deg = 10;   ///< pages that turn less against one another do not shut
constexpr double kNearlyShut_deg = 1.5;
constexpr double kSwings_rad = radians(48); ///< how far a tab is held off before it is pressed
constexpr double kShortWay_mm = 15;         ///< too short for an arrow
constexpr int kArc = 12;                    ///< corners of an arc

/// One step as it is worked out.
class SceneMaking {
public:
  SceneMaking(const Motion& motion, const WorkStep& step, const MadeJoints& before,
              const std::vector<int>& rank, double clearance_mm)
      : m_motion(motion), m_assembly(motion.assembly()), m_step(step), m_clearance_mm(clearance_mm),
        m_made(before), m_before(motion, before, rank),
        m_after(motion, withThose(before, step), rank) {
    for (JointIndex j : step.joints)
      m_made[j] = 1;
  }

  StepScene joining(double progress) {
    const PanelIndex anchor = anchorOf();
    // Pages that do not move against one another, as those of a sleeve, are pressed as they lie.
    const std::optional<double> open = heldOpen(leavesOf());
    const bool shutting = anchor == m_assembly.root && open &&
                          (m_step.press == PressWay::ByShutting || m_step.kind == WorkKind::DryFit);
    const double from = shutting ? *open : clamped(radians(m_step.opening_deg)),
                 to = shutting ? clamped(radians(kNearlyShut_deg)) : from;
    const bool brings = bringsSomething();
    // What is new is laid on first, then the card is shut on it.
    const double laying = shutting ? (brings ? std::min(1.0, 2 * progress) : 1) : progress;
    const double closing = brings ? std::max(0.0, 2 * progress - 1) : progress;
    const double opening = shutting ? from + (to - from) * closing : from;
    const bool dry = m_step.kind == WorkKind::DryFit;
    const Hanging how =
        m_step.press == PressWay::ByFinger || dry ? Hanging::Standing : Hanging::Flat;
    // Until it is shut, what is glued last hangs on its first side alone.
    const bool apartYet = shutting && !dry && !brings && progress < 1;
    m_scene.pose = (apartYet ? m_before : m_after).poseAt(opening, how, anchor, m_scene.off);
    lieOnTable(anchor);
    if (shutting) layOn(leavesOf());
    colourFresh();
    addGlue(dry);
    if (!shutting || brings)
      for (JointIndex j : m_step.joints)
        bring(j, laying);
    if (shutting) addShutting(opening, to, leavesOf());
    m_scene.shut = shutting && progress >= 1;
    addTies();
    return std::move(m_scene);
  }

  /// As it is held, with nothing brought to it.
  StepScene held(double opening_rad, Hanging how) {
    const PanelIndex anchor = anchorOf();
    m_scene.pose = m_after.poseAt(clamped(opening_rad), how, anchor, m_scene.off);
    lieOnTable(anchor);
    m_scene.shut = anchor == m_assembly.root && opening_rad <= radians(kNearlyShut_deg);
    colourFresh();
    addTies();
    return std::move(m_scene);
  }

  StepScene opening(double progress) {
    const double to = clamped(radians(m_step.opening_deg)),
                 now = clamped(radians(kNearlyShut_deg) + progress * to);
    m_scene.pose = m_after.poseAt(now, Hanging::Standing, m_assembly.root, m_scene.off);
    lieOnTable(m_assembly.root);
    addTies();
    if (m_step.kind == WorkKind::Open)
      addShutting(progress < 1 ? now : clamped(0.4 * to), to,
                  {tablePage(), otherThan(tablePage())});
    return std::move(m_scene);
  }

private:
  static MadeJoints withThose(MadeJoints made, const WorkStep& step) {
    for (JointIndex j : step.joints)
      made[j] = 1;
    return made;
  }
  double clamped(double opening_rad) const {
    const double low = std::max(m_motion.low_rad(), radians(kNearlyShut_deg));
    return std::clamp(opening_rad, low, std::max(low, m_motion.high_rad() - radians(0.02)));
  }

  std::array<PanelIndex, 2> sides(JointIndex j) const { return panelsOf(m_assembly.joints[j]); }

  /// What the step is built onto: the card when one of its pieces is on it.
  PanelIndex anchorOf() const {
    if (m_step.joints.empty() && m_step.pieces.empty()) return m_assembly.root;
    const PanelIndex one = m_step.joints.empty()
                               ? m_assembly.pieces[m_step.pieces.front()].panels.front()
                               : sides(m_step.joints.front())[0];
    return m_after.onCard(one) ? m_assembly.root : one;
  }

  bool bringsSomething() const {
    return m_step.kind != WorkKind::DryFit && std::ranges::any_of(m_step.joints, [&](JointIndex j) {
             return !tieOf(m_assembly.joints[j]) && !m_before.together(sides(j)[0], sides(j)[1]);
           });
  }
  /// Of the two sides of a joint the one that comes to the other: what is not on the card.
  bool secondMoves(JointIndex j) const { return !m_before.onCard(sides(j)[1]); }

  /// The side of the host on which the tab comes to lie, or the face of what is looked at, in the
  /// world.
  Vec3 up(PanelIndex anchor) const {
    for (JointIndex j : m_step.joints)
      if (const auto* glue = std::get_if<Glue>(&m_assembly.joints[j]))
        return m_scene.pose.panels[glue->host].linear().col(2) * (glue->onHostFace() ? 1.0 : -1.0);
    return m_scene.pose.panels[anchor].linear().col(2);
  }

  /// The card lies on its second page, turned over when the work is below; what is not on the card
  /// lies on the panel that is glued on.
  void lieOnTable(PanelIndex anchor) {
    if (anchor == m_assembly.root) {
      m_scene.bench = m_assembly.onTable(m_scene.pose.opening_rad);
      if ((m_scene.bench.linear() * up(anchor)).z() < -0.5)
        m_scene.bench = Eigen::AngleAxisd(kPi, Vec3::UnitY()) * m_scene.bench;
      return;
    }
    const Vec3 now = up(anchor), across = now.cross(Vec3::UnitZ());
    const double sine = across.norm();
    const Eigen::AngleAxisd turn(std::atan2(sine, now.z()),
                                 sine > 1e-9 ? Vec3(across / sine) : Vec3(Vec3::UnitX()));
    const Vec3 at = turn * m_scene.pose.panels[anchor].translation();
    m_scene.bench = Iso3(Eigen::Translation3d(-at) * turn);
  }

  /// The page that lies on the table as the card usually does, face up.
  PanelIndex tablePage() const {
    const auto pages = m_assembly.basePoses(0);
    return m_assembly.symmetric && pages.size() > 1 ? pages[1].first : m_assembly.root;
  }
  PanelIndex otherThan(PanelIndex page) const {
    for (const auto& [other, at] : m_assembly.basePoses(0))
      if (other != page) return other;
    return page;
  }
  /// While the card is shut on something: the page that holds it stays on the table, the side up on
  /// which it does; the other one comes down.
  struct Leaves {
    PanelIndex under, coming;
    bool face = true;
  };
  Leaves leavesOf() const {
    Leaves leaves{tablePage(), otherThan(tablePage())};
    const auto isPage = [&](PanelIndex p) { return m_assembly.panels[p].use == PanelUse::Page; };
    for (JointIndex j : m_step.joints) {
      if (!isPage(sides(j)[0])) continue;
      const PieceIndex piece = m_assembly.panels[sides(j)[1]].piece;
      const PanelIndex coming = sides(j)[0];
      leaves = {coming == tablePage() ? otherThan(coming) : tablePage(), coming};
      for (const auto& [other, glue] : m_assembly.every<Glue>())
        if (m_made[other] && other != j && isPage(glue.host) && glue.host != coming &&
            m_assembly.panels[glue.tab].piece == piece)
          leaves = {glue.host, coming, glue.onHostFace()};
      break;
    }
    return leaves;
  }
  /// The opening at which the two pages stand that far apart; where they never do, the widest.
  /// Nothing when they hardly move.
  std::optional<double> heldOpen(const Leaves& leaves) const {
    const auto apart = [&](double t) {
      Eigen::Matrix3d under = Eigen::Matrix3d::Identity(), coming = under;
      for (const auto& [page, at] : m_assembly.basePoses(t)) {
        if (page == leaves.under) under = at.linear();
        if (page == leaves.coming) coming = at.linear();
      }
      return Eigen::Matrix3d(under.transpose() * coming);
    };
    const double low = clamped(0), high = clamped(kPi);
    const Eigen::Matrix3d shut = apart(low);
    double widest = -1, best = low;
    for (int k = 1; k <= 60; ++k) {
      const double t = low + (high - low) * k / 60;
      const double angle = Eigen::AngleAxisd(apart(t) * shut.transpose()).angle();
      if (angle > widest + 1e-6) widest = angle, best = t;
      if (angle >= radians(kHeldOpen_deg)) break;
    }
    return widest > radians(kHardly_deg) ? std::optional(best) : std::nullopt;
  }
  static Iso3 level(const Iso3& page, bool face) {
    const Iso3 flat = inverseOf(page);
    return face ? flat : Iso3(Eigen::AngleAxisd(kPi, Vec3::UnitY()) * flat);
  }
  void layOn(const Leaves& leaves) {
    if (leaves.under != tablePage() || !leaves.face)
      m_scene.bench = level(m_scene.pose.panels[leaves.under], leaves.face);
  }

  void colourFresh() {
    std::set<PieceIndex> pieces;
    for (JointIndex j : m_step.joints)
      if (!tieOf(m_assembly.joints[j])) {
        const bool second = secondMoves(j) || m_before.together(sides(j)[0], sides(j)[1]);
        pieces.insert(m_assembly.panels[sides(j)[second ? 1 : 0]].piece);
      }
    if (m_step.kind == WorkKind::Dress) pieces.insert(m_step.pieces.begin(), m_step.pieces.end());
    for (PieceIndex p : pieces)
      for (PanelIndex panel : m_assembly.pieces[p].panels)
        m_scene.fresh.push_back(panel);
  }

  void addGlue(bool dry) {
    for (JointIndex j : m_step.joints) {
      const auto* glue = std::get_if<Glue>(&m_assembly.joints[j]);
      if (!glue) continue;
      std::vector<Region> where = glueRegion(m_assembly, *glue, m_clearance_mm), there;
      for (const Region& part : gluedOf(m_assembly, *glue)) {
        there.push_back(mapped(part, glue->tabToHost));
        m_scene.least_mm = std::min(m_scene.least_mm, boundsOf(part).size().minCoeff());
      }
      if (!dry) m_scene.glue.push_back({glue->tab, !glue->byFace, std::move(where), false});
      m_scene.glue.push_back({glue->host, !glue->onHostFace(), std::move(there), true});
    }
  }

  /// Which way the second panel of a joint comes off the first, in the world.
  Vec3 apart(JointIndex j) const {
    const Joint& joint = m_assembly.joints[j];
    const auto [first, second] = sides(j);
    const Eigen::Matrix3d turn = m_scene.pose.panels[first].linear();
    if (const auto* glue = std::get_if<Glue>(&joint))
      return turn.col(2) * (glue->onHostFace() ? 1.0 : -1.0);
    const Guide& guide = *guideOf(joint);
    // Slots and slides are pushed along their line, a pin goes through.
    const Vec3 line =
        turn * guide.onFirst.linear().col(std::holds_alternative<Slide>(joint) ? 2 : 1);
    if (!std::holds_alternative<Slot>(joint)) return line;
    const auto middle = [&](PanelIndex p) {
      return Vec3(m_scene.pose.panels[p] * lift(centroidOf(m_assembly.panels[p].outline)));
    };
    return line.dot(middle(second) - middle(first)) < 0 ? Vec3(-line) : line;
  }

  double far_mm() const {
    return std::clamp(0.28 * boundsOf(m_assembly.panels[m_assembly.root].outline).size().minCoeff(),
                      12.0, 45.0);
  }

  Vec3 placeOf(JointIndex j) const {
    const auto [first, second] = sides(j);
    if (const auto* glue = std::get_if<Glue>(&m_assembly.joints[j])) {
      const auto parts = gluedOf(m_assembly, *glue);
      const Vec2 at =
          parts.empty() ? centroidOf(m_assembly.panels[second].outline) : centroidOf(parts.front());
      return m_scene.pose.panels[second] * lift(at);
    }
    return m_scene.pose.panels[first] * guideOf(m_assembly.joints[j])->onFirst.translation();
  }

  /// Holds the paper of a joint off its place by what is left of its way.
  void bring(JointIndex j, double progress) {
    if (tieOf(m_assembly.joints[j]) || !m_scene.pose.placed[sides(j)[0]]) return;
    const auto [first, second] = sides(j);
    const bool moves = secondMoves(j);
    if (!m_before.together(first, second)) {
      const PanelIndex coming = moves ? second : first;
      const Vec3 way = apart(j) * (moves ? 1.0 : -1.0) * far_mm();
      // The same paper may come to several places at once.
      if (!std::exchange(m_brought[m_assembly.panels[coming].piece], true))
        for (PanelIndex p : m_assembly.panels.indices())
          if (m_scene.pose.placed[p] && m_before.together(p, coming))
            m_scene.pose.panels[p].pretranslate(Vec3(way * (1 - progress)));
      const Vec3 to = m_scene.bench * placeOf(j);
      const Vec3 held = m_scene.bench.linear() * way;
      // The tab itself is moved by now, and so is its place.
      const Vec3 goal = moves ? Vec3(to - held * (1 - progress)) : to;
      m_scene.ways.push_back({goal + held, goal});
      if (std::holds_alternative<Pivot>(m_assembly.joints[j])) m_scene.pins.push_back(goal);
      return;
    }
    swing(j, progress);
  }

  void swing(JointIndex j, double progress) {
    const auto [first, second] = sides(j);
    const auto swing = m_before.swingOf(second, first);
    const Vec3 off = apart(j), place = placeOf(j);
    if (std::holds_alternative<Pivot>(m_assembly.joints[j]))
      m_scene.pins.push_back(m_scene.bench * place);
    if (!swing) { // both are held: it is only pressed
      m_scene.ways.push_back({m_scene.bench * (place + off * far_mm()), m_scene.bench * place});
      return;
    }
    const Iso3& on = m_scene.pose.panels[swing->from];
    const Vec3 origin = on * swing->origin, axis = on.linear() * swing->axis;
    const double side = axis.cross(place - origin).dot(off) < 0 ? -1 : 1;
    const auto turned = [&](double share) {
      return rotationAboutLine(origin, axis, side * kSwings_rad * share);
    };
    std::vector<Vec3> way;
    for (int k = 0; k <= kArc; ++k)
      way.push_back(m_scene.bench * (turned(1 - static_cast<double>(k) / kArc) * place));
    // A narrow tab goes too short a way for an arrow: it is shown from where the finger comes.
    if ((way.front() - way.back()).norm() < kShortWay_mm)
      way = {m_scene.bench * (place + off * far_mm()), way.back()};
    m_scene.ways.push_back(std::move(way));
    for (PanelIndex p : swing->panels)
      m_scene.pose.panels[p] = turned(1 - progress) * m_scene.pose.panels[p];
  }

  /// The way of the page that comes down or goes up, by the middle of its outer edge.
  void addShutting(double from_rad, double to_rad, const Leaves& leaves) {
    const PanelIndex moving = leaves.coming;
    const bool usual = leaves.under == tablePage() && leaves.face;
    const auto placed = [&](double t) {
      Iso3 there = Iso3::Identity(), under = Iso3::Identity();
      for (const auto& [page, at] : m_assembly.basePoses(t)) {
        if (page == moving) there = at;
        if (page == leaves.under) under = at;
      }
      return Iso3((usual ? m_assembly.onTable(t) : level(under, leaves.face)) * there);
    };
    const Box2 page = boundsOf(m_assembly.panels[moving].outline);
    std::vector<Vec3> way;
    double farthest = -1;
    for (const Vec2& corner :
         {Vec2(page.low.x(), page.centre().y()), Vec2(page.high.x(), page.centre().y()),
          Vec2(page.centre().x(), page.low.y()), Vec2(page.centre().x(), page.high.y())}) {
      std::vector<Vec3> arc;
      double length = 0;
      for (int k = 0; k <= kArc; ++k) {
        arc.push_back(placed(from_rad + (to_rad - from_rad) * k / kArc) * lift(corner));
        if (k > 0) length += (arc.back() - arc[arc.size() - 2]).norm();
      }
      if (length > farthest) farthest = length, way = std::move(arc);
    }
    if (farthest > 5) m_scene.ways.push_back(std::move(way));
  }

  void addTies() {
    const auto add = [&](JointIndex j) {
      const Tie* tie = tieOf(m_assembly.joints[j]);
      if (!tie || !m_scene.pose.placed[tie->panels[0]] || !m_scene.pose.placed[tie->panels[1]])
        return;
      const auto end = [&](std::size_t k) {
        return Vec3(m_scene.bench * (m_scene.pose.panels[tie->panels[k]] * lift(tie->at[k])));
      };
      m_scene.ties.push_back({end(0), end(1)});
    };
    for (JointIndex j : m_step.joints)
      add(j);
    m_scene.freshTies = m_scene.ties.size();
    for (JointIndex j : m_assembly.joints.indices())
      if (m_made[j] && std::ranges::count(m_step.joints, j) == 0) add(j);
  }

  const Motion& m_motion;
  const Assembly& m_assembly;
  const WorkStep& m_step;
  double m_clearance_mm;
  MadeJoints m_made;
  PartlyBuilt m_before, m_after;
  std::map<PieceIndex, bool> m_brought;
  StepScene m_scene;
};

} // namespace

bool StepScene::anything() const {
  return std::ranges::any_of(pose.placed, [](char placed) { return placed != 0; });
}

StepScenes::StepScenes(const WorkPlan& plan, const Motion& motion, const Stacking& shut,
                       double foldClearance_mm)
    : m_plan(plan), m_motion(motion), m_assembly(motion.assembly()),
      m_clearance_mm(foldClearance_mm) {
  if (!motion.shuts() || shut.order.empty()) return;
  m_rank.assign(m_assembly.panels.size(), 0);
  for (std::size_t k = 0; k < shut.order.size(); ++k)
    m_rank[static_cast<std::size_t>(shut.order[k].value)] = static_cast<int>(k);
}

MadeJoints StepScenes::madeBefore(std::size_t step) const {
  MadeJoints made = madeAtFirst(m_assembly);
  for (std::size_t k = 0; k < step; ++k)
    if (m_plan.steps[k].kind == WorkKind::Join)
      for (JointIndex j : m_plan.steps[k].joints)
        made[j] = 1;
  return made;
}

bool StepScenes::builds(std::size_t step) const {
  const WorkStep& it = m_plan.steps[step];
  switch (it.kind) {
  case WorkKind::Ready:
  case WorkKind::DryFit:
  case WorkKind::Join:
  case WorkKind::Wait:
  case WorkKind::Open:
  case WorkKind::Finish: return true;
  case WorkKind::Dress: {
    const MadeJoints made = madeBefore(step);
    for (JointIndex j : m_assembly.joints.indices())
      if (made[j] && !comesMade(m_assembly, m_assembly.joints[j]))
        for (PanelIndex p : panelsOf(m_assembly.joints[j]))
          if (m_assembly.panels[p].piece == it.pieces.front()) return true;
    return false;
  }
  default: return false;
  }
}

StepScene StepScenes::at(std::size_t number, double progress) const {
  WorkStep step = m_plan.steps[number];
  const double t = std::clamp(progress, 0.0, 1.0);
  const bool finished = step.kind == WorkKind::Ready || step.kind == WorkKind::Finish;
  // The finished card, as it is opened, is what it begins with too.
  if (finished)
    for (const WorkStep& other : m_plan.steps)
      if (other.kind == WorkKind::Open) step.opening_deg = other.opening_deg;
  SceneMaking making(m_motion, step, madeBefore(finished ? m_plan.steps.size() : number), m_rank,
                     m_clearance_mm);
  switch (step.kind) {
  case WorkKind::Ready:
  case WorkKind::Finish: return making.opening(1);
  case WorkKind::Open: return making.opening(t);
  case WorkKind::Wait: return making.held(radians(step.opening_deg), Hanging::Flat);
  case WorkKind::Dress: return making.held(radians(step.opening_deg), Hanging::Standing);
  default: return making.joining(t);
  }
}

} // namespace hinge
