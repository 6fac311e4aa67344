// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sending/tool_way.h"
#include <algorithm>
#include <cmath>
#include <numbers>

namespace hinge {
namespace {

constexpr double kSame_mm = 1e-6;
/// Of the arc on which a holder turns round its tip: with knives of half a millimetre the chord
/// stays within 0.5 um of it.
constexpr double kArcStep_rad = 5 * std::numbers::pi / 180;

/// The corners that the tip passes: closed strokes come back to their start and go on by the
/// overcut.
std::vector<Vec2> passedBy(const ToolStroke& stroke, double overcut_mm) {
  std::vector<Vec2> points;
  const auto add = [&](const Vec2& p) {
    if (points.empty() || (p - points.back()).norm() > kSame_mm) points.push_back(p);
  };
  for (const Vec2& p : stroke.points)
    add(p);
  if (!stroke.closed || points.size() < 2) return points;
  if ((points.back() - points.front()).norm() <= kSame_mm) points.pop_back();
  const std::size_t corners = points.size();
  points.push_back(Vec2(points.front()));
  double left = overcut_mm;
  for (std::size_t k = 0; k + 1 < corners && left > kSame_mm; ++k) {
    const Vec2 along = points[k + 1] - points[k];
    const double step = std::min(left, along.norm());
    points.push_back(points[k] + along.normalized() * step);
    left -= step;
  }
  return points;
}

/// Turns the holder round a tip that stays where it is.
void turn(std::vector<Vec2>& way, const Vec2& tip, double offset_mm, const Vec2& from,
          const Vec2& to) {
  const double angle =
      std::atan2(from.x() * to.y() - from.y() * to.x(), std::clamp(from.dot(to), -1.0, 1.0));
  const int steps = static_cast<int>(std::ceil(std::abs(angle) / kArcStep_rad));
  for (int k = 1; k < steps; ++k)
    way.push_back(tip + offset_mm * (Eigen::Rotation2Dd(angle * k / steps) * from));
  way.push_back(tip + offset_mm * to);
}

} // namespace

std::vector<Vec2> wayOf(const ToolStroke& stroke, const Blade& blade, Vec2& heading) {
  const std::vector<Vec2> points = passedBy(stroke, blade.overcut_mm);
  if (points.size() < 2) return {};
  if (blade.offset_mm <= 0) {
    heading = (points.back() - points[points.size() - 2]).normalized();
    return points;
  }
  std::vector<Vec2> way{points.front() + blade.offset_mm * heading};
  for (std::size_t k = 0; k + 1 < points.size(); ++k) {
    const Vec2 along = (points[k + 1] - points[k]).normalized();
    turn(way, points[k], blade.offset_mm, heading, along);
    way.push_back(points[k + 1] + blade.offset_mm * along);
    heading = along;
  }
  return way;
}

} // namespace hinge
