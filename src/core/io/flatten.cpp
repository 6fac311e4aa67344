// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/flatten.h"
#include "core/units/length.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {
constexpr int kMostHalvings = 12, kMostChords = 2000;
} // namespace

void addCubic(std::vector<Vec2>& points, const Vec2& a, const Vec2& b, const Vec2& c, const Vec2& d,
              double off) {
  struct Part {
    Vec2 a, b, c, d;
    int depth;
  };
  std::vector<Part> open{{a, b, c, d, 0}};
  while (!open.empty()) {
    const Part p = open.back();
    open.pop_back();
    // How far the control points are from even steps bounds how far the curve is from its chord.
    const double bend = std::max((p.a - 2 * p.b + p.c).norm(), (p.b - 2 * p.c + p.d).norm());
    if (!(0.75 * bend > off) || p.depth >= kMostHalvings) {
      points.push_back(p.d);
      continue;
    }
    const Vec2 ab = 0.5 * (p.a + p.b), bc = 0.5 * (p.b + p.c), cd = 0.5 * (p.c + p.d);
    const Vec2 abc = 0.5 * (ab + bc), bcd = 0.5 * (bc + cd), middle = 0.5 * (abc + bcd);
    open.push_back({middle, bcd, cd, p.d, p.depth + 1});
    open.push_back({p.a, ab, abc, middle, p.depth + 1});
  }
}

void addArc(std::vector<Vec2>& points, const Vec2& middle, const Vec2& axisX, const Vec2& axisY,
            double from_rad, double to_rad, double off) {
  const double radius = std::max(axisX.norm(), axisY.norm());
  const double step = 2 * std::acos(std::clamp(1 - off / std::max(radius, off), -1.0, 1.0));
  const int n =
      std::clamp(static_cast<int>(std::ceil(std::abs(to_rad - from_rad) / std::max(step, 1e-3))), 2,
                 kMostChords);
  for (int k = 1; k <= n; ++k) {
    const double t = from_rad + (to_rad - from_rad) * k / n;
    points.push_back(middle + std::cos(t) * axisX + std::sin(t) * axisY);
  }
}

void addBulge(std::vector<Vec2>& points, const Vec2& from, const Vec2& to, double bulge,
              double off) {
  const Vec2 chord = to - from;
  if (std::abs(bulge) < 1e-9 || chord.norm() < 1e-9) return points.push_back(to);
  const double angle = 4 * std::atan(bulge), radius = 0.5 * chord.norm() / std::sin(0.5 * angle);
  const Vec2 square(-chord.y(), chord.x());
  const Vec2 middle = 0.5 * (from + to) + square.normalized() * (radius * std::cos(0.5 * angle));
  const Vec2 arm = from - middle;
  const double start = std::atan2(arm.y(), arm.x()), r = arm.norm();
  addArc(points, middle, {r, 0}, {0, r}, start, start + angle, off);
  points.back() = to;
}

void addSpline(std::vector<Vec2>& points, const std::vector<Vec2>& control,
               const std::vector<double>& knots, int degree, double off) {
  const auto count = static_cast<int>(control.size());
  const bool fits = degree >= 1 && degree <= 10 && count > degree &&
                    static_cast<int>(knots.size()) == count + degree + 1 &&
                    std::ranges::is_sorted(knots);
  if (!fits) {
    points.insert(points.end(), control.begin(), control.end());
    return;
  }
  const auto at = [&](double t) {
    int span = degree;
    while (span + 1 < count && knots[static_cast<std::size_t>(span) + 1] <= t)
      ++span;
    std::vector<Vec2> d;
    for (int j = 0; j <= degree; ++j)
      d.push_back(control[static_cast<std::size_t>(span - degree + j)]);
    for (int r = 1; r <= degree; ++r)
      for (int j = degree; j >= r; --j) {
        const double low = knots[static_cast<std::size_t>(span - degree + j)],
                     high = knots[static_cast<std::size_t>(span + 1 + j - r)];
        const double a = high > low ? (t - low) / (high - low) : 0;
        d[static_cast<std::size_t>(j)] =
            (1 - a) * d[static_cast<std::size_t>(j) - 1] + a * d[static_cast<std::size_t>(j)];
      }
    return d.back();
  };
  // Even steps, halved until the middles lie near their chords.
  const double first = knots[static_cast<std::size_t>(degree)],
               last = knots[static_cast<std::size_t>(count)];
  int n = 4 * count;
  const auto point = [&](int k, int of) { return at(first + (last - first) * k / of); };
  for (; n < kMostChords; n *= 2) {
    double worst = 0;
    for (int k = 0; k < n; ++k)
      worst =
          std::max(worst, (point(2 * k + 1, 2 * n) - 0.5 * (point(k, n) + point(k + 1, n))).norm());
    if (worst <= off) break;
  }
  for (int k = 0; k <= n; ++k)
    points.push_back(point(k, n));
}

} // namespace hinge
