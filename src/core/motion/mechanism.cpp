#include "core/motion/mechanism.h"
#include <algorithm>
#include <cmath>
#include <queue>

namespace hinge {

Mechanism Mechanism::from(const Assembly& assembly) {
  Mechanism m;
  const std::size_t count = assembly.panels.size();
  m.bodyOf.assign(count, BodyIndex());
  m.inBody.assign(count, Iso3::Identity());
  std::vector<std::vector<std::pair<PanelIndex, Iso3>>> glued(count); // neighbour, its frame in mine
  for (const Glue& glue : assembly.glues) {
    glued[static_cast<std::size_t>(glue.host.value)].push_back({glue.tab, glue.tabToHost});
    glued[static_cast<std::size_t>(glue.tab.value)].push_back({glue.host, glue.tabToHost.inverse()});
  }
  for (PanelIndex first : assembly.panels.indices()) {
    if (m.bodyOf[first].valid()) continue;
    const BodyIndex body = m.bodies.push({});
    std::queue<PanelIndex> open;
    m.bodyOf[first] = body;
    open.push(first);
    while (!open.empty()) {
      const PanelIndex panel = open.front();
      open.pop();
      m.bodies[body].panels.push_back(panel);
      for (const auto& [next, nextInPanel] : glued[static_cast<std::size_t>(panel.value)]) {
        const Iso3 place = m.inBody[panel] * nextInPanel;
        if (m.bodyOf[next].valid()) {
          for (const Vec2& p : assembly.panels[next].outline)
            m.worstGlueMisfit_mm = std::max(m.worstGlueMisfit_mm, (place * lift(p) - m.inBody[next] * lift(p)).norm());
          continue;
        }
        m.bodyOf[next] = body;
        m.inBody[next] = place;
        open.push(next);
      }
    }
  }
  for (FoldIndex f : assembly.folds.indices()) {
    const Fold& fold = assembly.folds[f];
    Joint joint{f, {}, false, m.bodyOf[fold.left], m.bodyOf[fold.right]};
    if (joint.left == joint.right) continue; // a fold inside one glued body does not move
    const Iso3 &left = m.inBody[fold.left], &right = m.inBody[fold.right];
    joint.leftFrom = left * lift(fold.from), joint.leftTo = left * lift(fold.to);
    joint.rightFrom = right * lift(fold.from), joint.rightTo = right * lift(fold.to);
    joint.leftAxis = (joint.leftTo - joint.leftFrom).normalized();
    // Two parts of one fold line between the same bodies are one hinge; the second would only repeat the first.
    const bool repeated = std::ranges::any_of(m.bodies[joint.left].joints, [&](JointIndex j) {
      const Joint& other = m.joints[j];
      if (other.other(joint.left) != joint.right) return false;
      const bool same = other.left == joint.left;
      const Vec3 &from = same ? other.leftFrom : other.rightFrom, &to = same ? other.leftTo : other.rightTo;
      const Vec3 axis = (to - from).normalized();
      return axis.cross(joint.leftFrom - from).norm() < 1e-6 && axis.cross(joint.leftTo - from).norm() < 1e-6;
    });
    if (repeated && std::ranges::find(assembly.drives, f, &Drive::fold) == assembly.drives.end()) continue;
    joint.home = left * right.inverse();
    joint.homeInverse = joint.home.inverse();
    const JointIndex index = m.joints.push(joint);
    m.bodies[joint.left].joints.push_back(index);
    m.bodies[joint.right].joints.push_back(index);
  }
  for (HingeIndex h : assembly.hinges.indices()) {
    const Hinge& hinge = assembly.hinges[h];
    Joint joint{{}, h, hinge.kind == HingeKind::Slide, m.bodyOf[hinge.first], m.bodyOf[hinge.second]};
    if (joint.left == joint.right) continue;
    const Iso3 left = m.inBody[hinge.first] * hinge.onFirst, right = m.inBody[hinge.second] * hinge.onSecond;
    constexpr double kArm_mm = 20; // any two points of the line
    const Vec3 from = Vec3::Zero(), to(0, kArm_mm, 0);
    joint.leftFrom = left * from, joint.leftTo = left * to, joint.rightFrom = right * from, joint.rightTo = right * to;
    joint.leftAxis = left.linear().col(1);
    joint.home = left * right.inverse();
    joint.homeInverse = joint.home.inverse();
    const JointIndex index = m.joints.push(joint);
    m.bodies[joint.left].joints.push_back(index);
    m.bodies[joint.right].joints.push_back(index);
  }
  for (const auto& [page, pose] : assembly.basePoses(kPi)) m.pages.push_back(page);
  return m;
}

void Mechanism::placeBase(const Assembly& assembly, double opening_rad, IndexedVector<BodyIndex, Iso3>& poses) const {
  for (const auto& [page, pose] : assembly.basePoses(opening_rad)) poses[bodyOf[page]] = pose * inBody[page].inverse();
}

Iso3 Mechanism::across(const Joint& joint, BodyIndex body, const Iso3& pose, double angle_rad) const {
  if (joint.slides) {
    const Eigen::Translation3d run(angle_rad * Joint::kSlideScale_mm * joint.leftAxis);
    return body == joint.left ? Iso3(pose * run * joint.home) : Iso3(pose * joint.homeInverse * run.inverse());
  }
  if (body == joint.left) return pose * rotationAboutLine(joint.leftFrom, joint.leftAxis, -angle_rad) * joint.home;
  return pose * joint.homeInverse * rotationAboutLine(joint.leftFrom, joint.leftAxis, angle_rad);
}

double Mechanism::foldAngle(const Joint& joint, const Iso3& leftPose, const Iso3& rightPose) const {
  if (joint.slides) return joint.leftAxis.dot((leftPose.inverse() * rightPose * joint.homeInverse).translation()) / Joint::kSlideScale_mm;
  const Eigen::Matrix3d relative = (leftPose.inverse() * rightPose * joint.homeInverse).linear();
  Vec3 side = joint.leftAxis.unitOrthogonal();
  const Vec3 turned = relative * side;
  return -std::atan2(joint.leftAxis.dot(side.cross(turned)), side.dot(turned));
}

} // namespace hinge
