// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/closed_forms.h"
#include <cmath>

namespace hinge {

std::optional<std::vector<Iso3>> parallelFoldPoses(double opening_rad, double position_mm, double a,
                                                   double b, double c, double d) {
  const double S = std::sin(0.5 * opening_rad), C = std::cos(0.5 * opening_rad);
  const Vec3 A(-S * a, 0, C * a), B(S * b, 0, C * b);
  const double D = (B - A).norm();
  if (D < 1e-9) return std::nullopt;
  const Vec3 e = (B - A) / D, n(-e.z(), 0, e.x());
  const double t = 0.5 * D + (c - d) * (c + d) / (2 * D);
  const double h2 = (D + c + d) * (D - (c - d)) * (D + (c - d)) * (c + d - D) / (4 * D * D);
  if (h2 < 1e-6) return std::nullopt;
  const Vec3 Q = A + t * e + std::sqrt(h2) * n, shift(0, position_mm, 0), y = Vec3::UnitY();
  const Vec3 dc = (Q - A).normalized(), dd = (B - Q).normalized();
  return std::vector<Iso3>{frame(A + shift, dc, y, dc.cross(y)),
                           frame(Q + shift - c * dd, dd, y, dd.cross(y))};
}

std::optional<std::vector<Iso3>> vFoldPoses(double opening_rad, double position_mm, double al,
                                            double be, double g1, double g2) {
  const double S = std::sin(0.5 * opening_rad), C = std::cos(0.5 * opening_rad);
  const Vec3 a(-S * std::sin(al), std::cos(al), C * std::sin(al)),
      b(S * std::sin(be), std::cos(be), C * std::sin(be));
  const double w = a.dot(b), det = 1.0 - w * w;
  if (det < 1e-9) return std::nullopt;
  const double x = (std::cos(g1) - w * std::cos(g2)) / det,
               y = (std::cos(g2) - w * std::cos(g1)) / det;
  const double rest = 1.0 - x * std::cos(g1) - y * std::cos(g2);
  if (rest < 1e-6) return std::nullopt;
  const Vec3 c = x * a + y * b + std::sqrt(rest) * b.cross(a).normalized();
  const Vec3 left = (a - a.dot(c) * c).normalized(), right = (b - b.dot(c) * c).normalized();
  const Vec3 apex(0, position_mm, 0);
  return std::vector<Iso3>{frame(apex, -left, c, (-left).cross(c)),
                           frame(apex, right, c, right.cross(c))};
}

} // namespace hinge
