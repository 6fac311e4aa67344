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
  for (const auto& [j, glue] : assembly.every<Glue>()) {
    glued[static_cast<std::size_t>(glue.host.value)].push_back({glue.tab, glue.tabToHost});
    glued[static_cast<std::size_t>(glue.tab.value)].push_back(
        {glue.host, inverseOf(glue.tabToHost)});
  }
  for (const Fold& fold : assembly.folds) {
    if (!fold.rest_rad) continue;
    const Iso3 turn = foldedOver(fold, *fold.rest_rad);
    glued[static_cast<std::size_t>(fold.left.value)].push_back({fold.right, turn});
    glued[static_cast<std::size_t>(fold.right.value)].push_back({fold.left, inverseOf(turn)});
  }
  for (const Joint& joint : assembly.joints) {
    const Guide* guide = guideOf(joint);
    if (!guide || !guide->rests) continue;
    const Iso3 there = movedInFirst(joint, (*guide->byHand)[0]);
    glued[static_cast<std::size_t>(guide->first.value)].push_back({guide->second, there});
    glued[static_cast<std::size_t>(guide->second.value)].push_back(
        {guide->first, inverseOf(there)});
  }
  for (const Carried& carried : assembly.carried) {
    glued[static_cast<std::size_t>(carried.host.value)].push_back({carried.panel, carried.at});
    glued[static_cast<std::size_t>(carried.panel.value)].push_back(
        {carried.host, inverseOf(carried.at)});
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

bool Mechanism::repeats(const Pair& pair) const {
  const bool fewer = bodies[pair.left].pairs.size() < bodies[pair.right].pairs.size();
  const BodyIndex beside = fewer ? pair.left : pair.right;
  return std::ranges::any_of(bodies[beside].pairs, [&](PairIndex j) {
    const Pair& other = pairs[j];
    if (std::minmax(other.left, other.right) != std::minmax(pair.left, pair.right)) return false;
    const bool same = other.left == pair.left;
    const Vec3& from = same ? other.leftFrom : other.rightFrom;
    const Vec3& to = same ? other.leftTo : other.rightTo;
    const Vec3 axis = (to - from).normalized();
    return axis.cross(pair.leftFrom - from).norm() < motion::kSameLine_mm &&
           axis.cross(pair.leftTo - from).norm() < motion::kSameLine_mm;
  });
}

void Mechanism::addPair(Pair pair, const Iso3& left, const Iso3& right) {
  pair.home = left * inverseOf(right);
  pair.homeInverse = inverseOf(pair.home);
  const PairIndex index = pairs.push(pair);
  bodies[pair.left].pairs.push_back(index);
  bodies[pair.right].pairs.push_back(index);
}

void Mechanism::addFold(const Assembly& assembly, FoldIndex f) {
  const Fold& fold = assembly.folds[f];
  Pair pair{f, {}, false, false, bodyOf[fold.left], bodyOf[fold.right]};
  const Iso3 &left = inBody[fold.left], &right = inBody[fold.right];
  if (pair.left == pair.right) { // it does not move
    const Iso3 turn = fold.rest_rad ? foldedOver(fold, *fold.rest_rad) : Iso3::Identity();
    return noteMisfit(fold.left, left, fold.right, right, {fold.from, fold.to}, turn);
  }
  pair.leftFrom = left * lift(fold.from), pair.leftTo = left * lift(fold.to);
  pair.rightFrom = right * lift(fold.from), pair.rightTo = right * lift(fold.to);
  pair.leftAxis = (pair.leftTo - pair.leftFrom).normalized();
  // Two parts of one fold line between the same bodies are one hinge; the second would only repeat
  // the first.
  const bool driven = std::ranges::find(assembly.drives, f, &Drive::fold) != assembly.drives.end();
  if (driven || !repeats(pair)) addPair(pair, left, right);
}

void Mechanism::addGuide(const Guide& guide, Pair pair) {
  pair.left = bodyOf[guide.first], pair.right = bodyOf[guide.second];
  const Iso3 left = inBody[guide.first] * guide.onFirst;
  const Iso3 right = inBody[guide.second] * guide.onSecond;
  if (pair.left == pair.right) return noteHeldGuide(guide, pair.slides, left, right);
  constexpr double kArm_mm = 20; // any two points of the line
  const Vec3 from = Vec3::Zero(), to(0, kArm_mm, 0);
  pair.leftFrom = left * from, pair.leftTo = left * to;
  pair.rightFrom = right * from, pair.rightTo = right * to;
  pair.leftAxis = left.linear().col(1);
  addPair(pair, left, right);
}

Mechanism Mechanism::from(const Assembly& assembly) {
  Mechanism m;
  m.gatherBodies(assembly);
  for (const auto& [j, glue] : assembly.every<Glue>())
    m.noteMisfit(glue.host, m.inBody[glue.host], glue.tab, m.inBody[glue.tab],
                 assembly.panels[glue.tab].outline.rim, glue.tabToHost);
  for (FoldIndex f : assembly.folds.indices())
    m.addFold(assembly, f);
  for (JointIndex j : assembly.joints.indices())
    if (const Guide* guide = guideOf(assembly.joints[j])) {
      const bool slides = std::holds_alternative<Slide>(assembly.joints[j]);
      const bool slot = std::holds_alternative<Slot>(assembly.joints[j]);
      m.addGuide(*guide, {{}, j, slides, !slot});
    }
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

void Mechanism::noteHeldGuide(const Guide& guide, bool slides, const Iso3& first,
                              const Iso3& second) {
  // Held still, the joint still has to be one line; along a slide's line it may stand anywhere.
  Vec3 apart = second.translation() - first.translation();
  const Vec3 line = first.linear().col(1);
  if (slides) apart -= apart.dot(line) * line;
  constexpr double kArm_mm = 20; // what a turn of the line weighs
  const double gap = apart.norm() + kArm_mm * line.cross(Vec3(second.linear().col(1))).norm();
  const Vec2 at = guide.onSecond.translation().head<2>();
  if (gap > motion::kAskew_mm) misfits.push_back({guide.first, guide.second, gap, at});
}

void Mechanism::placeBase(const Assembly& assembly, double opening_rad,
                          IndexedVector<BodyIndex, Iso3>& poses) const {
  for (const auto& [page, pose] : assembly.basePoses(opening_rad))
    poses[bodyOf[page]] = pose * inverseOf(inBody[page]);
}

Iso3 Mechanism::across(const Pair& pair, BodyIndex body, const Iso3& pose, double angle_rad) const {
  if (pair.slides) {
    const Eigen::Translation3d run(angle_rad * Pair::kSlideScale_mm * pair.leftAxis);
    return body == pair.left ? Iso3(pose * run * pair.home)
                             : Iso3(pose * pair.homeInverse * run.inverse());
  }
  if (body == pair.left)
    return pose * rotationAboutLine(pair.leftFrom, pair.leftAxis, -angle_rad) * pair.home;
  return pose * pair.homeInverse * rotationAboutLine(pair.leftFrom, pair.leftAxis, angle_rad);
}

double Mechanism::foldAngle(const Pair& pair, const Iso3& leftPose, const Iso3& rightPose) const {
  if (pair.slides)
    return pair.leftAxis.dot((inverseOf(leftPose) * rightPose * pair.homeInverse).translation()) /
           Pair::kSlideScale_mm;
  const Eigen::Matrix3d relative = (inverseOf(leftPose) * rightPose * pair.homeInverse).linear();
  Vec3 side = pair.leftAxis.unitOrthogonal();
  const Vec3 turned = relative * side;
  return -std::atan2(pair.leftAxis.dot(side.cross(turned)), side.dot(turned));
}

} // namespace hinge
