// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/access.h"
#include "core/geom/symmetric.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <array>
#include <cmath>
#include <ranges>
#include <utility>

namespace hinge {
namespace {

constexpr double kUnit_mm = 100; ///< lengths of this size weigh as much as a radian
/// From so many directions a place is open, not a hole that a finger is put through.
constexpr int kOpenWays = Walls::kWays / 3;
constexpr double kFinger_mm = 5; ///< half as thick as one finger that holds a pin
constexpr double kKnot_mm = 9;   ///< half as thick as the two fingers that tie a band
constexpr double kStill = 1e-5;  ///< relative speed that counts as none
constexpr std::array<double, 6> kLookedAt_deg{
    30, 60, 90, 120, 150, 175}; ///< none at which panels that meet flat would be in one plane

} // namespace

Access::Access(const Motion& motion, double shown_rad)
    : m_motion(motion), m_whole(motion.assembly()),
      m_shown_rad(std::clamp(shown_rad, motion.low_rad(), motion.high_rad())),
      m_guided(std::ranges::any_of(m_whole.joints, guideOf)),
      m_patches(m_whole, motion.mechanism()) {
  for (auto& known : m_openInFinished)
    known.assign(m_whole.joints.size(), -1);
  m_made.assign(m_whole.joints.size(), 0);
  m_madeOn.assign(m_whole.panels.size(), 0);
  for (JointIndex j : m_whole.joints.indices())
    if (comesMade(m_whole, m_whole.joints[j])) set({j}, true);
}

void Access::set(const JointGroup& group, bool made) {
  for (JointIndex j : group) {
    if (std::exchange(m_made[j], made) == made || tieOf(m_whole.joints[j])) continue;
    for (PanelIndex p : panelsOf(m_whole.joints[j]))
      m_madeOn[p] += made ? 1 : -1;
  }
  m_held.reset();
}

const Walls& Access::wallsAt(double opening_rad) const {
  const auto known = m_walls.find(opening_rad);
  if (known != m_walls.end()) return known->second;
  return m_walls.emplace(opening_rad, Walls(m_whole, m_motion.poseAt(opening_rad))).first->second;
}

const Access::Held& Access::held() const {
  if (!m_held) {
    m_held.emplace(Held{heldBy(m_whole, m_made)});
    m_held->ring = ringNumbers(m_held->mechanism);
  }
  return *m_held;
}

bool Access::isFlap(PanelIndex panel) const {
  return m_whole.foldsOf(panel).size() <= 1 && m_madeOn[panel] == 0;
}

bool Access::reaches(const std::vector<const JointGroup*>& groups, Press press) const {
  std::vector<const Slot*> slots;
  for (const JointGroup* group : groups)
    for (JointIndex j : *group) {
      if (!reaches(j, press)) return false;
      if (const Slot* slot = std::get_if<Slot>(&m_whole.joints[j])) slots.push_back(slot);
    }
  return slotsRunAlike(slots);
}

bool Access::reaches(JointIndex j, Press press) const {
  const Joint& joint = m_whole.joints[j];
  if (const Slot* slot = std::get_if<Slot>(&joint)) return slidesApart(*slot);
  if (const Pivot* pivot = std::get_if<Pivot>(&joint)) return pinHasRoom(*pivot);
  if (const Tie* tie = tieOf(joint))
    return endHasRoom(tie->panels[0], tie->at[0], tie->panels[1], tie->at[1]) &&
           endHasRoom(tie->panels[1], tie->at[1], tie->panels[0], tie->at[0]);
  const auto [there, joins] = panelsOf(joint);
  if (!partsFrom(joins, there)) return false;
  if (std::holds_alternative<Slide>(joint)) return true;
  if (!glueGetsIn(j) || !standsClear(j)) return false;
  return press == Press::ByShutting ? shutsOn(j) : fingerGetsTo(j, press);
}

bool Access::heldWithAny(PanelIndex panel, const std::vector<PanelIndex>& joined) const {
  return std::ranges::any_of(joined, [&](PanelIndex j) { return heldTogether(panel, j); });
}

bool Access::heldTogether(PanelIndex a, PanelIndex b) const {
  const Held& now = held();
  return now.ring[static_cast<std::size_t>(now.mechanism.bodyOf[a].value)] ==
         now.ring[static_cast<std::size_t>(now.mechanism.bodyOf[b].value)];
}

Eigen::MatrixXd Access::freeTwists(PanelIndex panel, std::vector<int>& place) const {
  const int ring = held().ring[static_cast<std::size_t>(held().mechanism.bodyOf[panel].value)];
  place.assign(held().mechanism.bodies.size(), -1);
  int count = 0;
  for (BodyIndex b : held().mechanism.bodies.indices())
    if (held().ring[static_cast<std::size_t>(b.value)] == ring)
      place[static_cast<std::size_t>(b.value)] = count++;
  const Pose pose = m_motion.poseAt(0.5 * (m_motion.low_rad() + m_motion.high_rad()));
  const auto bodyPose = [&](BodyIndex b) {
    return Iso3(pose.panels[held().mechanism.bodies[b].panels.front()] *
                inverseOf(held().mechanism.inBody[held().mechanism.bodies[b].panels.front()]));
  };
  Eigen::MatrixXd hold = Eigen::MatrixXd::Zero(
      6 * count, 6 * count); // K^T K of all constraints, gathered joint by joint
  for (const Pair& pair : held().mechanism.pairs) {
    const int left = place[static_cast<std::size_t>(pair.left.value)],
              right = place[static_cast<std::size_t>(pair.right.value)];
    if (left < 0 || right < 0) continue;
    const Iso3 at = bodyPose(pair.left);
    const Vec3 axis = at.linear() * pair.leftAxis;
    Eigen::Matrix<double, 6, 6> keeps =
        Eigen::Matrix<double, 6, 6>::Zero(); // of the relative twist
    if (pair.slides) {
      keeps.topLeftCorner<3, 3>() = Eigen::Matrix3d::Identity();
      keeps.bottomRightCorner<3, 3>() = Eigen::Matrix3d::Identity() - axis * axis.transpose();
    } else {
      for (double arm : {-0.3, 0.3}) {
        const Vec3 p = at * pair.leftFrom / kUnit_mm + arm * axis;
        Eigen::Matrix<double, 3, 6> speed; // of the point: rotation x p + v
        speed << 0, p.z(), -p.y(), 1, 0, 0, -p.z(), 0, p.x(), 0, 1, 0, p.y(), -p.x(), 0, 0, 0, 1;
        keeps += speed.transpose() * speed;
      }
    }
    hold.block<6, 6>(6 * left, 6 * left) += keeps, hold.block<6, 6>(6 * right, 6 * right) += keeps;
    hold.block<6, 6>(6 * left, 6 * right) -= keeps, hold.block<6, 6>(6 * right, 6 * left) -= keeps;
  }
  const SymmetricParts parts = symmetricParts(hold);
  Eigen::Index free = 0;
  while (free < parts.values.size() && parts.values[free] < 1e-10)
    ++free;
  return parts.vectors.leftCols(free);
}

Eigen::MatrixXd Access::freeAgainst(PanelIndex panel, PanelIndex other) const {
  std::vector<int> place;
  const Eigen::MatrixXd free = freeTwists(panel, place);
  const auto rowsOf = [&](PanelIndex p) {
    return free.middleRows(6 * place[static_cast<std::size_t>(held().mechanism.bodyOf[p].value)],
                           6);
  };
  return rowsOf(panel) - rowsOf(other);
}

bool Access::partsFrom(PanelIndex tab, PanelIndex host) const {
  if (isFlap(tab)) return true;
  if (held().mechanism.bodyOf[tab] == held().mechanism.bodyOf[host])
    return false; // other glue holds them
  if (!heldTogether(tab, host)) return true;
  const Pose pose = m_motion.poseAt(0.5 * (m_motion.low_rad() + m_motion.high_rad()));
  if (!pose.placed[tab] || !pose.placed[host]) return true; // told by other findings
  const Eigen::MatrixXd relative = freeAgainst(tab, host);
  const Vec3 normal = pose.panels[tab].linear().col(2);
  const Box2 box = boundsOf(m_whole.panels[tab].outline);
  for (const Vec2& corner : {box.low, box.high, Vec2(box.low.x(), box.high.y())}) {
    const Vec3 p = pose.panels[tab] * lift(corner) / kUnit_mm;
    Eigen::Matrix<double, 1, 6> speed;
    speed << p.cross(normal).transpose(), normal.transpose();
    if ((speed * relative).norm() > kStill) return true;
  }
  return false;
}

bool Access::slidesApart(const Slot& slot) const {
  if (held().mechanism.bodyOf[slot.first] == held().mechanism.bodyOf[slot.second]) return false;
  if (!heldTogether(slot.first, slot.second)) return true;
  const Pose pose = m_motion.poseAt(0.5 * (m_motion.low_rad() + m_motion.high_rad()));
  if (!pose.placed[slot.first] || !pose.placed[slot.second]) return true;
  const Eigen::MatrixXd relative = freeAgainst(slot.second, slot.first);
  Eigen::Matrix<double, 6, 1> along = Eigen::Matrix<double, 6, 1>::Zero();
  along.tail<3>() = pose.panels[slot.first].linear() * slot.onFirst.linear().col(1);
  // What of it no free twist leads to.
  const SymmetricParts reach = symmetricParts(relative * relative.transpose());
  for (Eigen::Index k = 0; k < reach.values.size(); ++k)
    if (reach.values[k] > kStill * kStill)
      along -= reach.vectors.col(k) * reach.vectors.col(k).dot(along);
  return along.norm() < 1e-3;
}

bool Access::slotsRunAlike(const std::vector<const Slot*>& slots) const {
  if (slots.size() < 2) return true;
  for (int k = 0; k <= 36; ++k) {
    const double t = m_motion.low_rad() + (m_motion.high_rad() - m_motion.low_rad()) * k / 36;
    if (t <= 0) continue;
    const Pose pose = m_motion.poseAt(t);
    double widest = 0;
    const auto way = [&](const Slot& slot) {
      return Vec3((pose.panels[slot.first] * slot.onFirst).linear().col(1));
    };
    for (const Slot* slot : slots) {
      if (!pose.placed[slot->first]) return true;
      const double cosine = std::clamp(way(*slot).dot(way(*slots.front())), -1.0, 1.0);
      widest = std::max(widest, std::acos(cosine));
    }
    if (widest <= kParallel_rad) return true;
  }
  return false;
}

bool Access::covered(PanelIndex panel, const Vec2& at, bool onFace, PanelIndex except) const {
  for (std::size_t k : m_patches.on(panel)) {
    const Patch& patch = m_patches.all()[k];
    if (patch.onFace != onFace || patch.other == except || !m_made[patch.glue]) continue;
    if (contains(patch.outline, at)) return true;
  }
  for (JointIndex j : m_whole.joints.indices()) {
    const Pivot* pivot = std::get_if<Pivot>(&m_whole.joints[j]);
    const Slide* slide = std::get_if<Slide>(&m_whole.joints[j]);
    if ((!pivot && !slide) || !m_made[j]) continue;
    const Guide& guide = *guideOf(m_whole.joints[j]);
    if (guide.first != panel && guide.second != panel) continue;
    // Pins point, and slides look, from the first panel to the second.
    const auto faceTowards = [&](const Iso3& on, double sense) {
      return sense * (pivot ? on.linear()(2, 1) : on.linear()(2, 2)) > 0;
    };
    const Iso3 second = slide ? slidInFirst(*slide, slide->middle_mm()) : turnedInFirst(guide, 0.0);
    const auto over = [&](PanelIndex other, const Iso3& toOther) {
      return other != except &&
             contains(m_whole.panels[other].outline, Vec2((toOther * lift(at)).head<2>()));
    };
    if (guide.first == panel && faceTowards(guide.onFirst, 1) == onFace &&
        over(guide.second, inverseOf(second)))
      return true;
    if (guide.second == panel && faceTowards(guide.onSecond, -1) == onFace &&
        over(guide.first, second))
      return true;
  }
  return false;
}

bool Access::glueGetsIn(JointIndex glue) const {
  constexpr double kFromCorner = 0.1; // not on the corner itself, where another panel may just end
  const Glue& g = std::get<Glue>(m_whole.joints[glue]);
  const Region& outline = m_whole.panels[g.tab].outline;
  const Vec2 middle = centroidOf(outline);
  const auto takenAt = [&](std::size_t patch, const Vec2& at) {
    return std::ranges::any_of(m_patches.beside(patch), [&](std::size_t k) {
      const Patch& other = m_patches.all()[k];
      return m_made[other.glue] && other.glue != glue && contains(other.outline, at);
    });
  };
  return std::ranges::any_of(outline.rim, [&](const Vec2& corner) {
    const Vec2 at = corner + kFromCorner * (middle - corner);
    const Vec2 onHost = (g.tabToHost * lift(at)).head<2>();
    if (takenAt(m_patches.onHost(glue), onHost) || takenAt(m_patches.onTab(glue), at)) return false;
    return !m_guided || (!covered(g.host, onHost, g.onHostFace(), g.tab) &&
                         !covered(g.tab, at, g.byFace, g.host));
  });
}

bool Access::standsClear(JointIndex glue) const {
  return std::ranges::none_of(m_patches.coveredFeet(), [&](const CoveredFoot& c) {
    const Foot& foot = m_patches.feet()[c.foot];
    return m_patches.all()[c.by].glue == glue && m_made[m_patches.all()[foot.patch].glue];
  });
}

bool Access::fingerGetsTo(JointIndex glue, Press press) const {
  const bool openly = press == Press::Openly;
  const int ways = openly ? kOpenWays : 1;
  const Glue& g = std::get<Glue>(m_whole.joints[glue]);
  const PieceIndex own = m_whole.panels[g.tab].piece;
  const Region& outline = m_whole.panels[g.tab].outline;
  const Vec2 middle = centroidOf(outline);
  std::vector<Vec2> places{middle};
  if (!openly)
    for (const Vec2& corner : outline.rim)
      places.push_back(0.5 * (corner + middle));
  const auto open = [&](const auto& counts) {
    // Wide open first: there most places are free.
    return std::any_of(kLookedAt_deg.rbegin(), kLookedAt_deg.rend(), [&](double deg) {
      const double t = radians(deg);
      if (t < m_motion.low_rad() || t > m_motion.high_rad()) return false;
      const Walls& walls = wallsAt(t);
      if (!walls.pose().placed[g.tab] || !walls.pose().placed[g.host]) return true;
      const Vec3 away = walls.pose().panels[g.host].linear().col(2) * (g.onHostFace() ? 1.0 : -1.0);
      return std::ranges::any_of(places, [&](const Vec2& place) {
        return walls.haveRoom(walls.pose().panels[g.tab] * lift(place), away, kFinger_mm, counts,
                              ways);
      });
    });
  };
  // Mostly a finger gets there in the finished card; only where not, what is made so far matters.
  // The piece itself swings aside while it is not glued.
  signed char& finished = m_openInFinished[openly ? 0 : 1][glue];
  if (finished < 0)
    finished = open([&](PanelIndex p) { return p != g.host && m_whole.panels[p].piece != own; });
  if (finished) return true;
  const std::vector<PanelIndex> joined{g.tab, g.host};
  return open([&](PanelIndex p) { return p != g.host && p != g.tab && heldWithAny(p, joined); });
}

bool Access::shutsOn(JointIndex glue) const {
  return m_whole.panels[std::get<Glue>(m_whole.joints[glue]).host].use == PanelUse::Page;
}

bool Access::pinHasRoom(const Pivot& pivot) const {
  // The axis looks from the first panel to the second.
  const bool secondUp = pivot.onFace();
  const bool firstUp = pivot.onSecond.linear()(2, 1) > 0;
  const Vec2 onFirst = pivot.onFirst.translation().head<2>();
  const Vec2 onSecond = pivot.onSecond.translation().head<2>();
  if (covered(pivot.first, onFirst, !secondUp, pivot.second)) return false;
  if (covered(pivot.second, onSecond, firstUp, pivot.first)) return false;
  const std::vector<PanelIndex> joined{pivot.first, pivot.second};
  const auto counts = [&](PanelIndex p) {
    return p != pivot.first && p != pivot.second && heldWithAny(p, joined);
  };
  return std::ranges::any_of(kLookedAt_deg, [&](double deg) {
    const double t = radians(deg);
    if (t < m_motion.low_rad() || t > m_motion.high_rad()) return false;
    const Walls& walls = wallsAt(t);
    if (!walls.pose().placed[pivot.first] || !walls.pose().placed[pivot.second]) return true;
    const Iso3 pin = walls.pose().panels[pivot.first] * pivot.onFirst;
    const Vec3 up = pin.linear().col(1), at = pin.translation();
    return walls.haveRoom(at, up, kFinger_mm, counts) &&
           walls.haveRoom(at, -up, kFinger_mm, counts);
  });
}

bool Access::endHasRoom(PanelIndex panel, const Vec2& at, PanelIndex other,
                        const Vec2& otherAt) const {
  const Walls& walls = wallsAt(m_shown_rad);
  const Pose& pose = walls.pose();
  if (!pose.placed[panel] || !pose.placed[other]) return true;
  const Vec3 end = pose.panels[panel] * lift(at), way = pose.panels[other] * lift(otherAt) - end;
  Vec3 normal = pose.panels[panel].linear().col(2);
  if (normal.dot(way) < 0) normal = -normal; // the side on which the band runs
  return walls.haveRoom(end, normal, kKnot_mm,
                        [&](PanelIndex p) { return p != panel && heldTogether(p, panel); });
}

} // namespace hinge
