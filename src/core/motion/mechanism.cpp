// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/mechanism.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <queue>

namespace hinge {

void Mechanism::gatherBodies(const Assembly& assembly) {
  const std::size_t count = assembly.panels.size();
  bodyOf.assign(count, BodyIndex());
  inBody.assign(count, Iso3::Identity());
  std::vector<std::vector<std::pair<PanelIndex, Iso3>>> glued(
      count); // neighbour, its frame in mine
  for (const Glue& glue : assembly.glues) {
    glued[static_cast<std::size_t>(glue.host.value)].push_back({glue.tab, glue.tabToHost});
    glued[static_cast<std::size_t>(glue.tab.value)].push_back(
        {glue.host, glue.tabToHost.inverse()});
  }
  for (PanelIndex first : assembly.panels.indices()) {
    if (bodyOf[first].valid()) continue;
    const BodyIndex body = bodies.push({});
    std::queue<PanelIndex> open;
    bodyOf[first] = body;
    open.push(first);
    while (!open.empty()) {
      const PanelIndex panel = open.front();
      open.pop();
      bodies[body].panels.push_back(panel);
      for (const auto& [next, nextInPanel] : glued[static_cast<std::size_t>(panel.value)]) {
        if (bodyOf[next].valid()) continue;
        bodyOf[next] = body;
        inBody[next] = inBody[panel] * nextInPanel;
        open.push(next);
      }
    }
  }
}

bool Mechanism::repeats(const Joint& joint) const {
  const bool fewer = bodies[joint.left].joints.size() < bodies[joint.right].joints.size();
  const BodyIndex beside = fewer ? joint.left : joint.right;
  return std::ranges::any_of(bodies[beside].joints, [&](JointIndex j) {
    const Joint& other = joints[j];
    if (std::minmax(other.left, other.right) != std::minmax(joint.left, joint.right)) return false;
    const bool same = other.left == joint.left;
    const Vec3& from = same ? other.leftFrom : other.rightFrom;
    const Vec3& to = same ? other.leftTo : other.rightTo;
    const Vec3 axis = (to - from).normalized();
    return axis.cross(joint.leftFrom - from).norm() < motion::kSameLine_mm &&
           axis.cross(joint.leftTo - from).norm() < motion::kSameLine_mm;
  });
}

void Mechanism::addJoint(Joint joint, const Iso3& left, const Iso3& right) {
  joint.home = left * right.inverse();
  joint.homeInverse = joint.home.inverse();
  const JointIndex index = joints.push(joint);
  bodies[joint.left].joints.push_back(index);
  bodies[joint.right].joints.push_back(index);
}

void Mechanism::addFold(const Assembly& assembly, FoldIndex f) {
  const Fold& fold = assembly.folds[f];
  Joint joint{f, {}, false, bodyOf[fold.left], bodyOf[fold.right]};
  const Iso3 &left = inBody[fold.left], &right = inBody[fold.right];
  if (joint.left == joint.right) // it does not move
    return noteMisfit(fold.left, left, fold.right, right, {fold.from, fold.to});
  joint.leftFrom = left * lift(fold.from), joint.leftTo = left * lift(fold.to);
  joint.rightFrom = right * lift(fold.from), joint.rightTo = right * lift(fold.to);
  joint.leftAxis = (joint.leftTo - joint.leftFrom).normalized();
  // Two parts of one fold line between the same bodies are one hinge; the second would only repeat
  // the first.
  const bool driven = std::ranges::find(assembly.drives, f, &Drive::fold) != assembly.drives.end();
  if (driven || !repeats(joint)) addJoint(joint, left, right);
}

void Mechanism::addHinge(const Assembly& assembly, HingeIndex h) {
  const Hinge& hinge = assembly.hinges[h];
  const bool slides = hinge.kind == HingeKind::Slide;
  Joint joint{{}, h, slides, bodyOf[hinge.first], bodyOf[hinge.second]};
  const Iso3 left = inBody[hinge.first] * hinge.onFirst;
  const Iso3 right = inBody[hinge.second] * hinge.onSecond;
  if (joint.left == joint.right) return noteHeldHinge(hinge, left, right);
  constexpr double kArm_mm = 20; // any two points of the line
  const Vec3 from = Vec3::Zero(), to(0, kArm_mm, 0);
  joint.leftFrom = left * from, joint.leftTo = left * to;
  joint.rightFrom = right * from, joint.rightTo = right * to;
  joint.leftAxis = left.linear().col(1);
  addJoint(joint, left, right);
}

Mechanism Mechanism::from(const Assembly& assembly) {
  Mechanism m;
  m.gatherBodies(assembly);
  for (const Glue& glue : assembly.glues)
    m.noteMisfit(glue.host, m.inBody[glue.host], glue.tab, m.inBody[glue.tab],
                 assembly.panels[glue.tab].outline.rim, glue.tabToHost);
  for (FoldIndex f : assembly.folds.indices())
    m.addFold(assembly, f);
  for (HingeIndex h : assembly.hinges.indices())
    m.addHinge(assembly, h);
  for (const auto& [page, pose] : assembly.basePoses(kPi))
    m.pages.push_back(page);
  return m;
}

void Mechanism::noteMisfit(PanelIndex first, const Iso3& firstInBody, PanelIndex second,
                           const Iso3& secondInBody, const std::vector<Vec2>& points,
                           const Iso3& secondToFirst) {
  Misfit misfit{first, second};
  for (const Vec2& p : points) {
    const Vec3 wanted = firstInBody * (secondToFirst * lift(p));
    const double gap = (wanted - secondInBody * lift(p)).norm();
    if (gap > misfit.gap_mm) misfit.gap_mm = gap, misfit.at = p;
  }
  if (misfit.gap_mm > motion::kAskew_mm) misfits.push_back(misfit);
}

void Mechanism::noteHeldHinge(const Hinge& hinge, const Iso3& first, const Iso3& second) {
  // Held still, the joint still has to be one line; along a slide's line it may stand anywhere.
  Vec3 apart = second.translation() - first.translation();
  const Vec3 line = first.linear().col(1);
  if (hinge.kind == HingeKind::Slide) apart -= apart.dot(line) * line;
  constexpr double kArm_mm = 20; // what a turn of the line weighs
  const double gap = apart.norm() + kArm_mm * line.cross(Vec3(second.linear().col(1))).norm();
  const Vec2 at = hinge.onSecond.translation().head<2>();
  if (gap > motion::kAskew_mm) misfits.push_back({hinge.first, hinge.second, gap, at});
}

void Mechanism::placeBase(const Assembly& assembly, double opening_rad,
                          IndexedVector<BodyIndex, Iso3>& poses) const {
  for (const auto& [page, pose] : assembly.basePoses(opening_rad))
    poses[bodyOf[page]] = pose * inBody[page].inverse();
}

Iso3 Mechanism::across(const Joint& joint, BodyIndex body, const Iso3& pose,
                       double angle_rad) const {
  if (joint.slides) {
    const Eigen::Translation3d run(angle_rad * Joint::kSlideScale_mm * joint.leftAxis);
    return body == joint.left ? Iso3(pose * run * joint.home)
                              : Iso3(pose * joint.homeInverse * run.inverse());
  }
  if (body == joint.left)
    return pose * rotationAboutLine(joint.leftFrom, joint.leftAxis, -angle_rad) * joint.home;
  return pose * joint.homeInverse * rotationAboutLine(joint.leftFrom, joint.leftAxis, angle_rad);
}

double Mechanism::foldAngle(const Joint& joint, const Iso3& leftPose, const Iso3& rightPose) const {
  if (joint.slides)
    return joint.leftAxis.dot((leftPose.inverse() * rightPose * joint.homeInverse).translation()) /
           Joint::kSlideScale_mm;
  const Eigen::Matrix3d relative = (leftPose.inverse() * rightPose * joint.homeInverse).linear();
  Vec3 side = joint.leftAxis.unitOrthogonal();
  const Vec3 turned = relative * side;
  return -std::atan2(joint.leftAxis.dot(side.cross(turned)), side.dot(turned));
}

} // namespace hinge
