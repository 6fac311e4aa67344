// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/contact/contact.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

Vec3 normalOf(const std::vector<Vec3>& p) {
  Vec3 n = Vec3::Zero();
  for (std::size_t i = 1; i + 1 < p.size(); ++i)
    n += (p[i] - p[0]).cross(p[i + 1] - p[0]);
  const double length = n.norm();
  return length > 0 ? Vec3(n / length) : Vec3(Vec3::Zero());
}

/// The interval in which a convex polygon meets a plane (signed corner distances d), along `line`.
bool spanOnLine(const std::vector<Vec3>& p, const std::vector<double>& d, const Vec3& line,
                double& low, double& high) {
  low = 1e300, high = -1e300;
  for (std::size_t i = 0; i < p.size(); ++i) {
    const std::size_t j = (i + 1) % p.size();
    if ((d[i] > 0) == (d[j] > 0)) continue;
    const double s = line.dot(p[i] + (p[j] - p[i]) * (d[i] / (d[i] - d[j])));
    low = std::min(low, s), high = std::max(high, s);
  }
  return low <= high;
}

/// What a sheet, given in convex parts, has to do with the plane of another one.
struct Meeting {
  double up = 0, down = 0; ///< how far it stands over on each side
  std::vector<std::pair<double, double>>
      spans; ///< where its parts meet the plane, along the common line
};

void meet(std::span<const std::vector<Vec3>> parts, const Vec3& o, const Vec3& n, const Vec3& line,
          Meeting& out) {
  thread_local std::vector<double> d; // kept: this is the innermost loop of the contact search
  out.up = out.down = 0;
  out.spans.clear();
  for (const std::vector<Vec3>& part : parts) {
    d.clear();
    for (const Vec3& q : part) {
      d.push_back(n.dot(q - o));
      out.up = std::max(out.up, d.back()), out.down = std::max(out.down, -d.back());
    }
    double low, high;
    if (spanOnLine(part, d, line, low, high)) out.spans.push_back({low, high});
  }
}

/// How far a sheet stands over a plane on its lesser side, looking only at what lies between two
/// places along a line of that plane.
double overBetween(std::span<const std::vector<Vec3>> parts, const Vec3& o, const Vec3& n,
                   const Vec3& line, double low, double high) {
  double up = 0, down = 0;
  const auto note = [&](const Vec3& p) {
    const double d = n.dot(p - o);
    up = std::max(up, d), down = std::max(down, -d);
  };
  for (const std::vector<Vec3>& part : parts)
    for (std::size_t i = 0; i < part.size(); ++i) {
      const Vec3 &p = part[i], &q = part[(i + 1) % part.size()];
      const double sp = line.dot(p), sq = line.dot(q);
      if (sp >= low && sp <= high) note(p);
      // Where the edge enters and leaves the stretch.
      for (double end : {low, high})
        if ((sp < end) != (sq < end)) note(p + (q - p) * ((end - sp) / (sq - sp)));
    }
  return std::min(up, down);
}

} // namespace

double crossingDepth(std::span<const std::vector<Vec3>> a, std::span<const std::vector<Vec3>> b,
                     Vec3* place, DepthOf which) {
  if (a.empty() || b.empty()) return 0.0;
  const Vec3 na = normalOf(a[0]), nb = normalOf(b[0]), cross = na.cross(nb);
  const double sine = cross.norm();
  if (sine < 1e-9) return 0.0;
  const Vec3 line = cross / sine;
  thread_local Meeting ma, mb;
  meet(a, b[0][0], nb, line, ma);
  if (std::min(ma.up, ma.down) <= 0 || ma.spans.empty()) return 0.0;
  meet(b, a[0][0], na, line, mb);
  const double over = std::min({ma.up, ma.down, mb.up, mb.down});
  if (over <= 0) return 0.0;
  // Parts that lie side by side are one sheet: their common stretches are joined before they are
  // measured.
  thread_local std::vector<std::pair<double, double>> common;
  common.clear();
  for (const auto& [lowA, highA] : ma.spans)
    for (const auto& [lowB, highB] : mb.spans)
      if (const double low = std::max(lowA, lowB), high = std::min(highA, highB); high > low)
        common.push_back({low, high});
  std::ranges::sort(common);
  double bestLow = 0, bestHigh = 0;
  for (std::size_t k = 0; k < common.size();) {
    double low = common[k].first, high = common[k].second;
    for (++k; k < common.size() && common[k].first <= high + 1e-6; ++k)
      high = std::max(high, common[k].second);
    if (high - low > bestHigh - bestLow) bestLow = low, bestHigh = high;
  }
  if (bestHigh <= bestLow) return 0.0;
  if (place) {
    // A point common to both planes, moved along the line to the middle of the overlap.
    const Vec3 e = na.cross(line);
    const Vec3 on = a[0][0] + e * (nb.dot(b[0][0] - a[0][0]) / nb.dot(e));
    *place = on + line * (0.5 * (bestLow + bestHigh) - line.dot(on));
  }
  const double length = bestHigh - bestLow;
  if (which == DepthOf::WholeSheets) return std::min(over, length);
  return std::min({length, overBetween(a, b[0][0], nb, line, bestLow, bestHigh),
                   overBetween(b, a[0][0], na, line, bestLow, bestHigh)});
}

} // namespace hinge
