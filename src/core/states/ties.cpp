// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/ties.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <optional>

namespace hinge {
namespace {

std::optional<double> apart(const Tie& tie, const Motion& motion, double t) {
  const Pose pose = t > 0 ? motion.poseAt(t) : motion.shutPose();
  if (!pose.placed[tie.panels[0]] || !pose.placed[tie.panels[1]]) return std::nullopt;
  return (pose.panels[tie.panels[0]] * lift(tie.at[0]) -
          pose.panels[tie.panels[1]] * lift(tie.at[1]))
      .norm();
}

} // namespace

namespace {

/// A half-plane from the line between the ends of a tie outwards.
struct HalfPlane {
  Vec3 from, along, out, side; ///< side: its normal
  double straight_mm;
};

/// The stretches of a panel in a plane, as points of that: x along the line, y out of it.
std::vector<std::array<Vec2, 2>> sectionOf(const Region& paper, const Iso3& pose,
                                           const HalfPlane& at) {
  const Vec3 n = pose.linear().transpose() * at.side; // the plane in the panel's frame
  const double level = at.side.dot(at.from - pose.translation());
  const Vec2 across = n.head<2>();
  if (across.norm() < 1e-9) return {};
  std::vector<Vec2> crossed;
  for (const auto& [a, b] : edgesOf(paper)) {
    const double da = across.dot(a) - level, db = across.dot(b) - level;
    if ((da > 0) != (db > 0)) crossed.push_back(a + (b - a) * (da / (da - db)));
  }
  const Vec2 line(-across.y(), across.x());
  std::ranges::sort(crossed, {}, [&](const Vec2& p) { return line.dot(p); });
  const auto there = [&](const Vec2& p) {
    const Vec3 d = pose * lift(p) - at.from;
    return Vec2(at.along.dot(d), at.out.dot(d));
  };
  std::vector<std::array<Vec2, 2>> stretches;
  for (std::size_t k = 0; k + 1 < crossed.size(); k += 2)
    stretches.push_back({there(crossed[k]), there(crossed[k + 1])});
  return stretches;
}

/// Length of the tightest way from one end to the other that leaves all of these below it.
double lengthOver(std::vector<Vec2> tops, double straight_mm) {
  tops.push_back({0, 0}), tops.push_back({straight_mm, 0});
  std::ranges::sort(tops, [](const Vec2& a, const Vec2& b) {
    return a.x() < b.x() || (a.x() == b.x() && a.y() < b.y());
  });
  std::vector<Vec2> hull;
  for (const Vec2& p : tops) {
    while (hull.size() > 1 &&
           cross2(hull.back() - hull[hull.size() - 2], p - hull[hull.size() - 2]) >= 0)
      hull.pop_back();
    hull.push_back(p);
  }
  double length = 0;
  for (std::size_t k = 0; k + 1 < hull.size(); ++k)
    length += (hull[k + 1] - hull[k]).norm();
  return length;
}

/// What the line meets in a half-plane, and the way over that.
TieRound roundIn(const HalfPlane& at, const Tie& tie, const Motion& motion, const Pose& pose) {
  constexpr double kBesideEnd_mm = 0.5; // paper that the ends are fixed to, or that starts there
  TieRound round{at.straight_mm, {}};
  std::vector<Vec2> tops;
  double most = 0;
  for (PanelIndex p : motion.assembly().panels.indices()) {
    if (!pose.placed[p] || motion.isLoose(p) || p == tie.panels[0] || p == tie.panels[1]) continue;
    for (const auto& [a, b] : sectionOf(motion.assembly().panels[p].outline, pose.panels[p], at)) {
      if ((a.y() > 0) == (b.y() > 0)) continue; // passed by
      const double x = a.x() + (b.x() - a.x()) * a.y() / (a.y() - b.y());
      if (x < kBesideEnd_mm || x > at.straight_mm - kBesideEnd_mm) continue;
      const Vec2& top = a.y() > 0 ? a : b;
      tops.push_back(top);
      if (top.y() > most) most = top.y(), round.over = p;
    }
  }
  if (round.over.valid()) round.needed_mm = lengthOver(std::move(tops), at.straight_mm);
  return round;
}

} // namespace

std::optional<TieRound> wayRound(const Tie& tie, const Motion& motion, const Pose& pose) {
  if (!pose.placed[tie.panels[0]] || !pose.placed[tie.panels[1]]) return std::nullopt;
  const Vec3 from = pose.panels[tie.panels[0]] * lift(tie.at[0]),
             to = pose.panels[tie.panels[1]] * lift(tie.at[1]);
  const double straight = (to - from).norm();
  if (straight < 1) return TieRound{straight, {}};
  const Vec3 along = (to - from) / straight;
  Vec3 up = Vec3::UnitZ() - Vec3::UnitZ().dot(along) * along;
  if (up.norm() < 1e-6) up = Vec3::UnitX() - Vec3::UnitX().dot(along) * along;
  up.normalize();
  return roundIn({from, along, up, along.cross(up), straight}, tie, motion, pose);
}

TieTravel travelOf(const Tie& tie, const Motion& motion, double shown_rad) {
  TieTravel travel;
  constexpr int kSteps = 180;
  const auto passes =
      [&](double inside,
          double outside) { // between an opening where it is taut and one where it is not
        while (std::abs(outside - inside) > kCheckFinest_rad) {
          const double middle = 0.5 * (inside + outside);
          const auto d = apart(tie, motion, middle);
          (d && *d > tie.length_mm ? inside : outside) = middle;
        }
        return inside;
      };
  bool tautBefore = false;
  double before = 0;
  for (int k = 0; k <= kSteps; ++k) {
    const double low = motion.assembly().low_rad, high = motion.assembly().high_rad;
    const double t = low + (high - low) * k / kSteps;
    const auto d = apart(tie, motion, t);
    if (!d) continue;
    const bool taut = *d > tie.length_mm;
    if (!travel.known)
      travel.shortest_mm = travel.longest_mm = *d, travel.longest_rad = t, travel.shut_mm = *d;
    if (taut && !tautBefore && travel.tautTo_rad == 0)
      travel.tautFrom_rad = travel.known ? passes(t, before) : t;
    if (taut) travel.tautTo_rad = t;
    if (!taut && tautBefore) travel.tautTo_rad = passes(before, t);
    travel.known = true;
    travel.shortest_mm = std::min(travel.shortest_mm, *d);
    if (*d > travel.longest_mm) travel.longest_mm = *d, travel.longest_rad = t;
    tautBefore = taut, before = t;
  }
  travel.shown_rad = std::clamp(shown_rad, motion.low_rad(), motion.high_rad());
  if (const auto d = apart(tie, motion, travel.shown_rad)) travel.shown_mm = *d;
  return travel;
}

} // namespace hinge
