#include "core/making/access.h"
#include <Eigen/Eigenvalues>
#include <algorithm>
#include <array>
#include <cmath>
#include <functional>

namespace hinge {
namespace {

constexpr double kUnit_mm = 100;       ///< lengths of this size weigh as much as a radian
constexpr double kFinger_mm = 5;       ///< half as thick as one finger that holds a pin
constexpr double kKnot_mm = 9;         ///< half as thick as the two fingers that tie a band
constexpr double kReach_mm = 250;      ///< from farther than that a hand comes from outside
constexpr double kParallel_rad = radians(2.0);
constexpr double kStill = 1e-5;        ///< relative speed that counts as none
constexpr std::array<double, 6> kLookedAt_deg{30, 60, 90, 120, 150, 175}; ///< none at which panels that meet flat would be in one plane

/// Per body a number, shared by bodies that are connected without the hinges that are in no ring (bridges). A depth-first walk.
std::vector<int> ringNumbers(const Mechanism& m) {
  const std::size_t n = m.bodies.size();
  std::vector<int> ring(n, -1), entered(n, -1), low(n, 0);
  std::vector<char> bridge(m.joints.size(), 0);
  int clock = 0;
  const auto at = [](auto i) { return static_cast<std::size_t>(i.value); };
  const std::function<void(BodyIndex, JointIndex)> walk = [&](BodyIndex b, JointIndex from) {
    entered[at(b)] = low[at(b)] = clock++;
    for (JointIndex j : m.bodies[b].joints) {
      if (j == from) continue;
      const BodyIndex next = m.joints[j].other(b);
      if (entered[at(next)] >= 0) {
        low[at(b)] = std::min(low[at(b)], entered[at(next)]);
        continue;
      }
      walk(next, j);
      low[at(b)] = std::min(low[at(b)], low[at(next)]);
      if (low[at(next)] > entered[at(b)]) bridge[at(j)] = 1;
    }
  };
  for (BodyIndex b : m.bodies.indices())
    if (entered[at(b)] < 0) walk(b, {});
  int next = 0;
  for (BodyIndex start : m.bodies.indices()) {
    if (ring[at(start)] >= 0) continue;
    std::vector<BodyIndex> open{start};
    ring[at(start)] = next;
    while (!open.empty()) {
      const BodyIndex b = open.back();
      open.pop_back();
      for (JointIndex j : m.bodies[b].joints)
        if (const BodyIndex other = m.joints[j].other(b); ring[at(other)] < 0 && !bridge[at(j)]) ring[at(other)] = next, open.push_back(other);
    }
    ++next;
  }
  return ring;
}

/// Directions of a half-sphere about a unit vector, to 70 degrees from it.
std::vector<Vec3> coneAbout(const Vec3& axis) {
  const Vec3 u = axis.unitOrthogonal(), v = axis.cross(u);
  std::vector<Vec3> all{axis};
  for (double off : {25.0, 50.0, 70.0})
    for (int k = 0; k < 12; ++k) {
      const double a = radians(off), b = radians(30.0 * k + off);
      all.push_back(std::cos(a) * axis + std::sin(a) * (std::cos(b) * u + std::sin(b) * v));
    }
  return all;
}

} // namespace

Access::Access(const Motion& motion, double shown_rad, const std::vector<const Join*>& made)
    : m_motion(motion), m_whole(motion.assembly()), m_shown_rad(std::clamp(shown_rad, motion.low_rad(), motion.high_rad())) {
  for (const Join* join : made) {
    for (std::size_t g : join->glues) m_glues.push_back(m_whole.glues[g]);
    for (HingeIndex h : join->hinges) m_hinges.push(m_whole.hinges[h]);
  }
}

const Access::Held& Access::held() const {
  if (!m_held) {
    Assembly part;
    part.panels = m_whole.panels, part.folds = m_whole.folds, part.drives = m_whole.drives, part.root = m_whole.root;
    part.glues = m_glues, part.hinges = m_hinges;
    m_held.emplace(Mechanism::from(part));
    m_held->ring = ringNumbers(m_held->mechanism);
  }
  return *m_held;
}

bool Access::isFlap(PanelIndex panel) const {
  return m_whole.foldsOf(panel).size() <= 1 && std::ranges::none_of(m_glues, [&](const Glue& g) { return g.tab == panel || g.host == panel; }) &&
         std::ranges::none_of(m_hinges, [&](const Hinge& h) { return h.first == panel || h.second == panel; });
}

bool Access::reaches(const std::vector<const Join*>& joins) const {
  std::vector<HingeIndex> slots;
  for (const Join* join : joins) {
    if (!reaches(*join)) return false;
    if (join->kind == JoinKind::Slot) slots.insert(slots.end(), join->hinges.begin(), join->hinges.end());
  }
  return slotsRunAlike(slots);
}

bool Access::reaches(const Join& join) const {
  switch (join.kind) {
  case JoinKind::Glue: return partsFrom(join.second, join.first) && glueGetsIn(m_whole.glues[join.glues.front()]);
  case JoinKind::Slide: return partsFrom(join.second, join.first);
  case JoinKind::Slot: return std::ranges::all_of(join.hinges, [&](HingeIndex h) { return slidesApart(m_whole.hinges[h]); });
  case JoinKind::Pivot: return pinHasRoom(m_whole.hinges[join.hinges.front()]);
  case JoinKind::Band: {
    const Link& link = m_whole.links[join.links.front()];
    return endHasRoom(link.panels[0], link.at[0], link.panels[1], link.at[1]) && endHasRoom(link.panels[1], link.at[1], link.panels[0], link.at[0]);
  }
  }
  return true;
}

bool Access::heldTogether(PanelIndex a, PanelIndex b) const {
  const Held& now = held();
  return now.ring[static_cast<std::size_t>(now.mechanism.bodyOf[a].value)] == now.ring[static_cast<std::size_t>(now.mechanism.bodyOf[b].value)];
}

Eigen::MatrixXd Access::freeTwists(PanelIndex panel, std::vector<int>& place) const {
  const int ring = held().ring[static_cast<std::size_t>(held().mechanism.bodyOf[panel].value)];
  place.assign(held().mechanism.bodies.size(), -1);
  int count = 0;
  for (BodyIndex b : held().mechanism.bodies.indices())
    if (held().ring[static_cast<std::size_t>(b.value)] == ring) place[static_cast<std::size_t>(b.value)] = count++;
  const Pose pose = m_motion.poseAt(0.5 * (m_motion.low_rad() + m_motion.high_rad()));
  const auto bodyPose = [&](BodyIndex b) { return Iso3(pose.panels[held().mechanism.bodies[b].panels.front()] * held().mechanism.inBody[held().mechanism.bodies[b].panels.front()].inverse()); };
  Eigen::MatrixXd hold = Eigen::MatrixXd::Zero(6 * count, 6 * count); // K^T K of all constraints, gathered joint by joint
  for (const Joint& joint : held().mechanism.joints) {
    const int left = place[static_cast<std::size_t>(joint.left.value)], right = place[static_cast<std::size_t>(joint.right.value)];
    if (left < 0 || right < 0) continue;
    const Iso3 at = bodyPose(joint.left);
    const Vec3 axis = at.linear() * joint.leftAxis;
    Eigen::Matrix<double, 6, 6> keeps = Eigen::Matrix<double, 6, 6>::Zero(); // of the relative twist
    if (joint.slides) {
      keeps.topLeftCorner<3, 3>() = Eigen::Matrix3d::Identity();
      keeps.bottomRightCorner<3, 3>() = Eigen::Matrix3d::Identity() - axis * axis.transpose();
    } else {
      for (double arm : {-0.3, 0.3}) {
        const Vec3 p = at * joint.leftFrom / kUnit_mm + arm * axis;
        Eigen::Matrix<double, 3, 6> speed; // of the point: rotation x p + v
        speed << 0, p.z(), -p.y(), 1, 0, 0, -p.z(), 0, p.x(), 0, 1, 0, p.y(), -p.x(), 0, 0, 0, 1;
        keeps += speed.transpose() * speed;
      }
    }
    hold.block<6, 6>(6 * left, 6 * left) += keeps, hold.block<6, 6>(6 * right, 6 * right) += keeps;
    hold.block<6, 6>(6 * left, 6 * right) -= keeps, hold.block<6, 6>(6 * right, 6 * left) -= keeps;
  }
  const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> parts(hold);
  Eigen::Index free = 0;
  while (free < parts.eigenvalues().size() && parts.eigenvalues()[free] < 1e-10) ++free;
  return parts.eigenvectors().leftCols(free);
}

bool Access::partsFrom(PanelIndex tab, PanelIndex host) const {
  if (isFlap(tab)) return true;
  if (held().mechanism.bodyOf[tab] == held().mechanism.bodyOf[host]) return false; // other glue holds them
  if (!heldTogether(tab, host)) return true;
  const Pose pose = m_motion.poseAt(0.5 * (m_motion.low_rad() + m_motion.high_rad()));
  if (!pose.placed[tab] || !pose.placed[host]) return true; // told by other findings
  std::vector<int> place;
  const Eigen::MatrixXd free = freeTwists(tab, place);
  const auto rowsOf = [&](PanelIndex p) { return free.middleRows(6 * place[static_cast<std::size_t>(held().mechanism.bodyOf[p].value)], 6); };
  const Eigen::MatrixXd relative = rowsOf(tab) - rowsOf(host);
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

bool Access::slidesApart(const Hinge& slot) const {
  if (held().mechanism.bodyOf[slot.first] == held().mechanism.bodyOf[slot.second]) return false;
  if (!heldTogether(slot.first, slot.second)) return true;
  const Pose pose = m_motion.poseAt(0.5 * (m_motion.low_rad() + m_motion.high_rad()));
  if (!pose.placed[slot.first] || !pose.placed[slot.second]) return true;
  std::vector<int> place;
  const Eigen::MatrixXd free = freeTwists(slot.first, place);
  const auto rowsOf = [&](PanelIndex p) { return free.middleRows(6 * place[static_cast<std::size_t>(held().mechanism.bodyOf[p].value)], 6); };
  const Eigen::MatrixXd relative = rowsOf(slot.second) - rowsOf(slot.first);
  Eigen::Matrix<double, 6, 1> along = Eigen::Matrix<double, 6, 1>::Zero();
  along.tail<3>() = pose.panels[slot.first].linear() * slot.onFirst.linear().col(1);
  const Eigen::VectorXd share = relative.completeOrthogonalDecomposition().solve(along);
  return (relative * share - along).norm() < 1e-3;
}

bool Access::slotsRunAlike(const std::vector<HingeIndex>& slots) const {
  if (slots.size() < 2) return true;
  const auto& hinges = m_whole.hinges;
  for (int k = 0; k <= 36; ++k) {
    const double t = m_motion.low_rad() + (m_motion.high_rad() - m_motion.low_rad()) * k / 36;
    if (t <= 0) continue;
    const Pose pose = m_motion.poseAt(t);
    double widest = 0;
    const auto way = [&](HingeIndex h) { return Vec3((pose.panels[hinges[h].first] * hinges[h].onFirst).linear().col(1)); };
    for (HingeIndex h : slots) {
      if (!pose.placed[hinges[h].first]) return true;
      widest = std::max(widest, std::acos(std::clamp(way(h).dot(way(slots.front())), -1.0, 1.0)));
    }
    if (widest <= kParallel_rad) return true;
  }
  return false;
}

bool Access::covered(PanelIndex panel, const Vec2& at, bool onFace, PanelIndex except) const {
  for (const Glue& glue : m_glues) {
    if (glue.tab != except && glue.host == panel && glue.onHostFace() == onFace && contains(m_whole.panels[glue.tab].outline, Vec2((glue.tabToHost.inverse() * lift(at)).head<2>()))) return true;
    if (glue.host != except && glue.tab == panel && glue.byFace == onFace && contains(m_whole.panels[glue.host].outline, Vec2((glue.tabToHost * lift(at)).head<2>()))) return true;
  }
  for (const Hinge& h : m_hinges) {
    if (h.kind == HingeKind::Slot) continue;
    // Pins point, and slides look, from the first panel to the second.
    const auto faceTowards = [&](const Iso3& on, double sense) { return sense * (h.kind == HingeKind::Pivot ? on.linear()(2, 1) : on.linear()(2, 2)) > 0; };
    const Iso3 second = secondInFirst(h, h.kind == HingeKind::Slide ? 0.5 * (h.least_mm + h.most_mm) : 0.0);
    if (h.first == panel && h.second != except && faceTowards(h.onFirst, 1) == onFace && contains(m_whole.panels[h.second].outline, Vec2((second.inverse() * lift(at)).head<2>()))) return true;
    if (h.second == panel && h.first != except && faceTowards(h.onSecond, -1) == onFace && contains(m_whole.panels[h.first].outline, Vec2((second * lift(at)).head<2>()))) return true;
  }
  return false;
}

bool Access::glueGetsIn(const Glue& glue) const {
  constexpr double kFromCorner = 0.1; // not on the corner itself, where another panel may just end
  const Polygon& outline = m_whole.panels[glue.tab].outline;
  const Vec2 middle = centroidOf(outline);
  return std::ranges::any_of(outline, [&](const Vec2& corner) {
    const Vec2 at = corner + kFromCorner * (middle - corner), onHost = (glue.tabToHost * lift(at)).head<2>();
    return !covered(glue.host, onHost, glue.onHostFace(), glue.tab) && !covered(glue.tab, at, glue.byFace, glue.host);
  });
}

bool Access::room(const Pose& pose, const std::vector<PanelIndex>& joined, const Vec3& at, const Vec3& outwards, double radius_mm, const std::vector<PanelIndex>& ignore) const {
  struct Wall {
    Iso3 toPanel;
    const Polygon* outline;
  };
  std::vector<Wall> walls;
  for (PanelIndex p : m_whole.panels.indices())
    if (pose.placed[p] && std::ranges::find(ignore, p) == ignore.end() && std::ranges::any_of(joined, [&](PanelIndex j) { return heldTogether(p, j); })) walls.push_back({pose.panels[p].inverse(), &m_whole.panels[p].outline});
  const auto free = [&](const Vec3& from, const Vec3& to) {
    return std::ranges::none_of(walls, [&](const Wall& w) {
      const Vec3 a = w.toPanel * from, b = w.toPanel * to;
      if ((a.z() > 0) == (b.z() > 0) || std::abs(a.z() - b.z()) < 1e-9) return false;
      const Vec3 hit = a + (b - a) * (a.z() / (a.z() - b.z()));
      return contains(*w.outline, Vec2(hit.head<2>()));
    });
  };
  const Vec3 skin = at + 0.02 * outwards;
  for (const Vec3& way : coneAbout(outwards)) {
    const Vec3 u = way.unitOrthogonal(), v = way.cross(u);
    bool clear = free(skin, skin + kReach_mm * way);
    // The finger itself begins where it is clear of the panel it touches.
    for (int k = 0; k < 6 && clear; ++k) {
      const Vec3 rim = std::cos(kPi * k / 3) * u + std::sin(kPi * k / 3) * v;
      const Vec3 from = at + radius_mm * (outwards + rim);
      clear = free(skin, from) && free(from, from + kReach_mm * way);
    }
    if (clear) return true;
  }
  return false;
}

bool Access::pinHasRoom(const Hinge& pivot) const {
  // The axis looks from the first panel to the second.
  const bool secondUp = pivot.onFirst.linear()(2, 1) > 0, firstUp = pivot.onSecond.linear()(2, 1) > 0;
  const Vec2 onFirst = pivot.onFirst.translation().head<2>(), onSecond = pivot.onSecond.translation().head<2>();
  if (covered(pivot.first, onFirst, !secondUp, pivot.second) || covered(pivot.second, onSecond, firstUp, pivot.first)) return false;
  return std::ranges::any_of(kLookedAt_deg, [&](double deg) {
    const double t = radians(deg);
    if (t < m_motion.low_rad() || t > m_motion.high_rad()) return false;
    const Pose pose = m_motion.poseAt(t);
    if (!pose.placed[pivot.first] || !pose.placed[pivot.second]) return true;
    const Iso3 pin = pose.panels[pivot.first] * pivot.onFirst;
    const Vec3 up = pin.linear().col(1), at = pin.translation();
    return room(pose, {pivot.first, pivot.second}, at, up, kFinger_mm, {pivot.first, pivot.second}) && room(pose, {pivot.first, pivot.second}, at, -up, kFinger_mm, {pivot.first, pivot.second});
  });
}

bool Access::endHasRoom(PanelIndex panel, const Vec2& at, PanelIndex other, const Vec2& otherAt) const {
  const Pose pose = m_motion.poseAt(m_shown_rad);
  if (!pose.placed[panel] || !pose.placed[other]) return true;
  const Vec3 end = pose.panels[panel] * lift(at), way = pose.panels[other] * lift(otherAt) - end;
  Vec3 normal = pose.panels[panel].linear().col(2);
  if (normal.dot(way) < 0) normal = -normal; // the side on which the band runs
  return room(pose, {panel}, end, normal, kKnot_mm, {panel});
}

} // namespace hinge
