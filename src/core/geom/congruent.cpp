// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/congruent.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

/// Without corners at which nothing turns.
Polygon bent(const Polygon& ring, double within_mm) {
  Polygon kept;
  for (std::size_t k = 0; k < ring.size(); ++k) {
    const Vec2 &before = ring[(k + ring.size() - 1) % ring.size()],
               &after = ring[(k + 1) % ring.size()];
    if (distanceToSegment(ring[k], before, after) > 0.2 * within_mm) kept.push_back(ring[k]);
  }
  return kept;
}

/// Corner k of `from` on corner k + shift of `onto`; the turn is taken from the two corners that
/// are farthest from the first.
Congruence laidOn(const Polygon& from, const Polygon& onto, std::size_t shift, bool mirrored) {
  const std::size_t count = from.size();
  std::size_t far = 0;
  for (std::size_t k = 1; k < count; ++k)
    if ((from[k] - from[0]).norm() > (from[far] - from[0]).norm()) far = k;
  const auto flat = [&](const Vec2& p) { return mirrored ? Vec2(-p.x(), p.y()) : p; };
  const Vec2 here = flat(from[far]) - flat(from[0]),
             there = onto[(far + shift) % count] - onto[shift];
  Congruence way{mirrored, std::atan2(there.y(), there.x()) - std::atan2(here.y(), here.x()),
                 Vec2::Zero()};
  way.move = onto[shift] - way(from[0]);
  return way;
}

bool holdsForHoles(const Congruence& way, const Region& one, const Region& other,
                   double within_mm) {
  return std::ranges::all_of(one.holes, [&](const Polygon& hole) {
    return std::ranges::any_of(other.holes, [&](const Polygon& there) {
      return std::abs(std::abs(signedArea_mm2(hole)) - std::abs(signedArea_mm2(there))) <
                 within_mm * (1 + boundsOf(hole).size().sum()) &&
             std::ranges::all_of(hole, [&](const Vec2& corner) {
               return distanceToOutline(there, way(corner)) < within_mm;
             });
    });
  });
}

} // namespace

Vec2 Congruence::operator()(const Vec2& p) const {
  const Vec2 q = mirrored ? Vec2(-p.x(), p.y()) : p;
  const double c = std::cos(turn_rad), s = std::sin(turn_rad);
  return Vec2(c * q.x() - s * q.y(), s * q.x() + c * q.y()) + move;
}

std::vector<Congruence> congruences(const Region& one, const Region& other, double within_mm,
                                    std::size_t most) {
  std::vector<Congruence> ways;
  if (one.holes.size() != other.holes.size()) return ways;
  const double round = boundsOf(one).size().sum();
  if (std::abs(area_mm2(one) - area_mm2(other)) > within_mm * (1 + 2 * round)) return ways;
  const Polygon onto = bent(other.rim, within_mm);
  for (const bool mirrored : {false, true}) {
    Polygon from = bent(one.rim, within_mm);
    if (from.size() != onto.size() || from.size() < 3) return ways;
    if (mirrored) std::ranges::reverse(from); // it runs the other way round when turned over
    for (std::size_t shift = 0; shift < onto.size() && ways.size() < most; ++shift) {
      const Congruence way = laidOn(from, onto, shift, mirrored);
      bool lies = true;
      for (std::size_t k = 0; k < from.size() && lies; ++k)
        lies = (way(from[k]) - onto[(k + shift) % onto.size()]).norm() < within_mm;
      if (lies && holdsForHoles(way, one, other, within_mm)) ways.push_back(way);
    }
  }
  return ways;
}

} // namespace hinge
