// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/profile.h"
#include "core/pieces/sheet_scanner.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kLeastPanel_mm = 0.5;

/// Angle between the ways from a point to two others.
double between_deg(const Vec2& at, const Vec2& a, const Vec2& b) {
  const Vec2 u = (a - at).normalized(), v = (b - at).normalized();
  return degrees(std::acos(std::clamp(u.dot(v), -1.0, 1.0)));
}

/// Where a place at a height sees two points under an angle: on the circle through both on which
/// they stand at that angle, cut by the level line. Of several the nearest to `now`.
std::optional<Vec2> seenUnder(const Vec2& a, const Vec2& b, double angle_deg, double height,
                              const Vec2& now) {
  const Vec2 chord = b - a, middle = 0.5 * (a + b);
  const double half = 0.5 * chord.norm(), angle = radians(angle_deg);
  if (half < kTouch_mm || angle < 1e-3 || angle > kPi - 1e-3) return std::nullopt;
  const Vec2 square = Vec2(-chord.y(), chord.x()).normalized();
  const double radius = half / std::sin(angle), off = half / std::tan(angle);
  std::optional<Vec2> best;
  for (double side : {1.0, -1.0}) {
    const Vec2 centre = middle + side * off * square;
    const double up = height - centre.y();
    if (std::abs(up) > radius) continue;
    const double out = std::sqrt(radius * radius - up * up);
    for (double sign : {1.0, -1.0}) {
      const Vec2 p(centre.x() + sign * out, height);
      // Only the arc on the side of its centre sees them under the angle itself.
      if (std::abs(between_deg(p, a, b) - angle_deg) > 1e-6) continue;
      if (!best || (p - now).norm() < (*best - now).norm()) best = p;
    }
  }
  return best;
}

/// On the line through `now` square to a-b: where the angle is as wished, on the side of `now`.
std::optional<Vec2> openedTo(const Vec2& a, const Vec2& b, double angle_deg, const Vec2& now) {
  const Vec2 along = (b - a).normalized(), square(-along.y(), along.x());
  const double p = along.dot(now - a), q = (b - a).norm() - p;
  const double side = square.dot(now - a) >= 0 ? 1 : -1;
  // The angle falls from 180 to 0 while the place goes out, as long as its foot lies between.
  double low = 0, high = 1e4;
  const auto at = [&](double out) { return Vec2(a + p * along + side * out * square); };
  if (p <= 0 || q <= 0 || angle_deg <= 0 || angle_deg >= 180) return std::nullopt;
  for (int k = 0; k < 100; ++k) {
    const double out = 0.5 * (low + high);
    (between_deg(at(out), a, b) > angle_deg ? low : high) = out;
  }
  return at(0.5 * (low + high));
}

} // namespace

double FoldProfile::angle_deg(std::size_t score) const {
  return between_deg(corners[score + 1], corners[score], corners[score + 2]);
}

std::optional<FoldProfile> profileOf(const Assembly& assembly, const Pose& pose, const Iso3& bench,
                                     StructureId piece, const PieceWork& work) {
  const auto marks = scoreMarks(work);
  if (marks.empty()) return std::nullopt;
  const Box2 box = boundsOf(work.outline);
  const auto lowEnd = [&](const ScoreMark& mark) {
    const WorkLine& line = work.lines[mark.line];
    return line.from.y() <= line.to.y() ? line.from : line.to;
  };
  std::vector<Vec2> ends{{box.low.x(), lowEnd(marks.front()).y()}};
  for (const ScoreMark& mark : marks)
    ends.push_back(lowEnd(mark));
  ends.push_back({box.high.x(), lowEnd(marks.back()).y()});
  // A point of a panel close to the lower end of a score beside it: an opening may take its middle.
  constexpr double kBeside_mm = 0.2;
  const auto pointOf = [&](std::size_t panel) {
    const ScoreMark& mark = marks[panel == 0 ? 0 : panel - 1];
    const Vec2 low = lowEnd(mark);
    const Vec2 up = (work.lines[mark.line].from + work.lines[mark.line].to - 2 * low).normalized();
    return Vec2(low + kBeside_mm * (up + Vec2(panel == 0 ? -1 : 1, 0)));
  };
  const auto panelAt = [&](const Vec2& point) -> PanelIndex {
    for (PanelIndex q : assembly.panels.indices())
      if (assembly.panels[q].owner == piece && contains(assembly.panels[q].outline.rim, point))
        return q;
    return {};
  };
  std::vector<Vec3> places;
  Vec3 axis = Vec3::UnitY();
  for (std::size_t k = 0; k + 1 < ends.size(); ++k) {
    const PanelIndex q = panelAt(pointOf(k));
    if (!q.valid() || !pose.placed[q]) return std::nullopt;
    const Iso3 stands = bench * pose.panels[q];
    if (k == 0) {
      const WorkLine& line = work.lines[marks.front().line];
      axis = (stands.linear() * lift((line.to - line.from).normalized())).normalized();
      places.push_back(stands * lift(ends[0]));
    }
    places.push_back(stands * lift(ends[k + 1]));
  }
  Vec3 up = Vec3::UnitZ() - axis.z() * axis;
  constexpr double kUpright = 0.2; // scores that nearly stand are seen from above
  up = up.norm() > kUpright ? Vec3(up.normalized()) : axis.unitOrthogonal();
  // As it stands on the stage: what lies to the right there does so here.
  const Vec3 across = axis.cross(up).x() < 0 ? Vec3(-axis.cross(up)) : Vec3(axis.cross(up));
  const auto flat = [&](const Vec3& p) { return Vec2(across.dot(p), up.dot(p)); };
  FoldProfile profile;
  for (const Vec3& p : places)
    profile.corners.push_back(flat(p));
  for (const ScoreMark& mark : marks)
    profile.lines.push_back(mark.line);
  for (const auto& [page, stands] : assembly.basePoses(pose.opening_rad)) {
    if (assembly.panels[page].owner) continue;
    Polygon outline;
    for (const Vec2& c : assembly.panels[page].outline.rim)
      outline.push_back(flat(bench * (stands * lift(c))));
    profile.pages.push_back(std::move(outline));
  }
  return profile;
}

Result<RidgeWish> ridgeWish(std::string_view text, LengthUnit unit) {
  SheetScanner in(text, unit);
  RidgeWish wish;
  wish.height_mm = in.length();
  if (wish.height_mm) in.take("high");
  if (in.take("at")) {
    wish.angle_deg = in.angle_deg();
    if (!wish.angle_deg) return in.lost("angle");
  }
  if (!wish.height_mm && !wish.angle_deg) return in.lost("length, at");
  if (!in.atEnd()) return in.tooMuch();
  return wish;
}

Result<PieceWork> withRidge(const PieceWork& work, const FoldProfile& profile, std::size_t score,
                            const RidgeWish& wish) {
  const Vec2 a = profile.corners[score], b = profile.corners[score + 2],
             now = profile.corners[score + 1];
  std::optional<Vec2> to;
  if (wish.height_mm && wish.angle_deg)
    to = seenUnder(a, b, *wish.angle_deg, *wish.height_mm, now);
  else if (wish.height_mm)
    to = Vec2(now.x(), *wish.height_mm);
  else if (wish.angle_deg)
    to = openedTo(a, b, *wish.angle_deg, now);
  const double left = to ? (*to - a).norm() : 0, right = to ? (*to - b).norm() : 0;
  if (!to || left < kLeastPanel_mm || right < kLeastPanel_mm)
    return Error{{"profile.none", Millimetres{wish.height_mm.value_or(now.y())},
                  Degrees{wish.angle_deg.value_or(between_deg(now, a, b))}},
                 ""};
  auto first = withPanelWidth(work, score, left);
  if (!first) return first;
  return withPanelWidth(*first, score + 1, right);
}

} // namespace hinge
