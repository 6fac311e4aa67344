#include "core/contact/contact.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

Vec3 normalOf(const std::vector<Vec3>& p) {
  Vec3 n = Vec3::Zero();
  for (std::size_t i = 1; i + 1 < p.size(); ++i) n += (p[i] - p[0]).cross(p[i + 1] - p[0]);
  const double length = n.norm();
  return length > 0 ? Vec3(n / length) : Vec3(Vec3::Zero());
}

/// The interval in which a convex polygon meets a plane (signed corner distances d), along `line`.
bool spanOnLine(const std::vector<Vec3>& p, const std::vector<double>& d, const Vec3& line, double& low, double& high) {
  low = 1e300, high = -1e300;
  for (std::size_t i = 0; i < p.size(); ++i) {
    const std::size_t j = (i + 1) % p.size();
    if ((d[i] > 0) == (d[j] > 0)) continue;
    const double s = line.dot(p[i] + (p[j] - p[i]) * (d[i] / (d[i] - d[j])));
    low = std::min(low, s), high = std::max(high, s);
  }
  return low <= high;
}

} // namespace

double crossingDepth(const std::vector<Vec3>& a, const std::vector<Vec3>& b, Vec3* place) {
  const Vec3 na = normalOf(a), nb = normalOf(b), cross = na.cross(nb);
  const double sine = cross.norm();
  if (sine < 1e-9) return 0.0;
  const Vec3 line = cross / sine;
  const auto distances = [](const std::vector<Vec3>& p, const Vec3& o, const Vec3& n, double& up, double& down, std::vector<double>& d) {
    d.clear();
    up = down = 0;
    for (const Vec3& q : p) {
      d.push_back(n.dot(q - o));
      up = std::max(up, d.back()), down = std::max(down, -d.back());
    }
  };
  thread_local std::vector<double> da, db; // kept: this is the innermost call of the contact search
  double upA, downA, upB, downB;
  distances(a, b[0], nb, upA, downA, da), distances(b, a[0], na, upB, downB, db);
  double depth = std::min({upA, downA, upB, downB});
  if (depth <= 0) return 0.0;
  double lowA, highA, lowB, highB;
  if (!spanOnLine(a, da, line, lowA, highA) || !spanOnLine(b, db, line, lowB, highB)) return 0.0;
  const double low = std::max(lowA, lowB), high = std::min(highA, highB);
  if (high <= low) return 0.0;
  if (place) {
    // A point common to both planes, moved along the line to the middle of the overlap.
    const Vec3 e = na.cross(line);
    const Vec3 on = a[0] + e * (nb.dot(b[0] - a[0]) / nb.dot(e));
    *place = on + line * (0.5 * (low + high) - line.dot(on));
  }
  return std::min(depth, high - low);
}

} // namespace hinge
