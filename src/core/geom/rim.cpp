// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/rim.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kSame_mm = 1e-9, kArcOff_mm = 0.05;
constexpr double kStraight_rad = radians(179), kMostOfRing_deg = 350;

struct Corner {
  Vec2 before, here, after;
  Vec2 back() const { return (before - here).normalized(); }
  Vec2 on() const { return (after - here).normalized(); }
  double inside_rad() const { return std::acos(std::clamp(back().dot(on()), -1.0, 1.0)); }
  double room_mm() const { return 0.5 * std::min((before - here).norm(), (after - here).norm()); }
};

Corner cornerOf(const Polygon& rim, std::size_t k) {
  const std::size_t n = rim.size();
  return {rim[(k + n - 1) % n], rim[k], rim[(k + 1) % n]};
}

std::size_t chords(double radius_mm, double sweep_rad) {
  const double most = 2 * std::acos(1 - std::min(kArcOff_mm / radius_mm, 1.0));
  return static_cast<std::size_t>(std::max(2.0, std::ceil(sweep_rad / most)));
}

/// Chords of one arc are equally long, to this share, and turn by less than this.
constexpr double kChordShare = 0.05;
const double kChordCosine = std::cos(radians(40));
constexpr double kLevel = 0.2; ///< an edge that leads out by less does not say where to go

} // namespace

Vec2 endOnRim(const Polygon& rim, const Vec2& end, const Vec2& other) {
  if (distanceToOutline(rim, end) < kTouch_mm) return end;
  const Vec2 along = (end - other).normalized();
  Vec2 best = end;
  double least = 1e300;
  for (const auto& [a, b] : edgesOf(rim)) {
    const Vec2 d = b - a;
    const double den = cross2(along, d);
    if (std::abs(den) < 1e-12) continue;
    const double t = cross2(a - other, d) / den, s = cross2(a - other, along) / den;
    if (s < -1e-9 || s > 1 + 1e-9 || t < kTouch_mm) continue;
    if (const double off = std::abs(t - (end - other).norm()); off < least)
      least = off, best = other + t * along;
  }
  return best;
}

std::optional<std::vector<Vec2>> roundedCorner(const Polygon& rim, std::size_t corner,
                                               double radius_mm) {
  const Corner c = cornerOf(rim, corner);
  const double turn = c.inside_rad(), back = radius_mm / std::tan(0.5 * turn);
  if (!(radius_mm > kArcOff_mm) || turn > kStraight_rad || back > c.room_mm() + kSame_mm)
    return std::nullopt;
  const Vec2 middle =
      c.here + (radius_mm / std::sin(0.5 * turn)) * (c.back() + c.on()).normalized();
  const double sweep = kPi - turn;
  const double sign = cross2(c.here - c.before, c.after - c.here) > 0 ? 1 : -1;
  const std::size_t steps = chords(radius_mm, sweep);
  const Vec2 arm = c.here + back * c.back() - middle;
  std::vector<Vec2> points;
  for (std::size_t s = 0; s <= steps; ++s) {
    const double a = sign * sweep * static_cast<double>(s) / static_cast<double>(steps);
    points.push_back(middle + Vec2(std::cos(a) * arm.x() - std::sin(a) * arm.y(),
                                   std::sin(a) * arm.x() + std::cos(a) * arm.y()));
  }
  return points;
}

std::optional<std::vector<Vec2>> snippedCorner(const Polygon& rim, std::size_t corner,
                                               double back_mm) {
  const Corner c = cornerOf(rim, corner);
  const double most = 2 * c.room_mm() - 2 * kTouch_mm;
  if (!(back_mm > kArcOff_mm) || back_mm > most || c.inside_rad() > kStraight_rad)
    return std::nullopt;
  return std::vector<Vec2>{c.here + back_mm * c.back(), c.here + back_mm * c.on()};
}

Vec2 outwards(const Polygon& rim, std::size_t edge) {
  const Vec2 along = (rim[(edge + 1) % rim.size()] - rim[edge]).normalized();
  const double sign = signedArea_mm2(rim) > 0 ? 1 : -1;
  return sign * Vec2(along.y(), -along.x());
}

Polygon withEdgeOut(const Polygon& rim, std::size_t edge, double out_mm) {
  const std::size_t n = rim.size();
  const Vec2 out = outwards(rim, edge);
  Polygon moved = rim;
  // From one end of the edge on: chords of an arc go along as they are, up to the first edge that
  // is none.
  const auto pull = [&](std::size_t first, std::size_t step) {
    const auto chord = [&](std::size_t at) { return Vec2(rim[(at + step) % n] - rim[at]); };
    const double length = chord(first).norm();
    std::size_t last = first;
    const auto goesOn = [&](std::size_t at) {
      const Vec2 here = chord(at), next = chord((at + step) % n);
      return std::abs(here.norm() - length) < kChordShare * length &&
             here.dot(next) > kChordCosine * here.norm() * next.norm();
    };
    const Vec2 along = step == 1 ? rim[first] - rim[edge] : rim[first] - rim[(edge + 1) % n];
    if (along.dot(chord(first)) > kChordCosine * along.norm() * length)
      for (std::size_t k = 0; k < n && goesOn(last); ++k)
        last = (last + step) % n;
    if (last != first && std::abs(chord(last).norm() - length) < kChordShare * length)
      last = (last + step) % n;
    const Vec2 way = chord(last).normalized();
    const Vec2 by =
        std::abs(way.dot(out)) < kLevel ? Vec2(out_mm * out) : Vec2(out_mm / way.dot(out) * way);
    for (std::size_t at = first;; at = (at + step) % n) {
      moved[at] = rim[at] + by;
      if (at == last) return;
    }
  };
  pull((edge + 1) % n, 1);
  pull(edge, n - 1);
  return moved;
}

Polygon rectangle(const Vec2& corner, const Vec2& other) {
  return {corner, {other.x(), corner.y()}, other, {corner.x(), other.y()}};
}

Polygon disc(const Vec2& middle, double across_mm) {
  const double r = 0.5 * across_mm;
  const auto n = std::max(kLeastDisc,
                          static_cast<std::size_t>(std::ceil(kPi / std::acos(1 - kArcOff_mm / r))));
  Polygon rim;
  for (std::size_t k = 0; k < n; ++k) {
    const double angle = 2 * kPi * static_cast<double>(k) / static_cast<double>(n);
    rim.push_back(middle + r * Vec2(std::cos(angle), std::sin(angle)));
  }
  return rim;
}

Polygon ringSegment(const Vec2& middle, double inner_mm, double outer_mm, double towards_deg,
                    double sweep_deg) {
  const double sweep = radians(std::min(sweep_deg, kMostOfRing_deg)),
               first = radians(towards_deg) - 0.5 * sweep;
  Polygon rim;
  const auto arc = [&](double radius, bool back) {
    const std::size_t steps = chords(radius, sweep);
    for (std::size_t k = 0; k <= steps; ++k) {
      const double share = static_cast<double>(back ? steps - k : k) / static_cast<double>(steps);
      const double a = first + share * sweep;
      rim.push_back(middle + radius * Vec2(std::cos(a), std::sin(a)));
    }
  };
  arc(outer_mm, false);
  arc(inner_mm, true);
  return rim;
}

Region roomAlong(const Edge& line, double room_mm) {
  const Vec2 d = (line.second - line.first).normalized(), n(-d.y(), d.x());
  const Vec2 a = line.first - room_mm * d, b = line.second + room_mm * d;
  return Region({a - room_mm * n, b - room_mm * n, b + room_mm * n, a + room_mm * n});
}

} // namespace hinge
