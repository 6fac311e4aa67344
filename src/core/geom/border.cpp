// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/border.h"
#include "core/geom/rim.h"
#include "core/units/length.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kOnePoint_mm = 1e-9;
constexpr double kLongestMitre = 6; ///< of the wider border; beyond, the border ends square

/// One ring with the paper on its left hand, and how wide the border is along each edge.
class Strip {
public:
  Strip(const Polygon& ring, const std::function<double(const Edge&)>& border_mm) {
    for (std::size_t k = 0; k < ring.size(); ++k) {
      const Vec2 &from = ring[k], &to = ring[(k + 1) % ring.size()];
      if ((to - from).norm() < kOnePoint_mm) continue;
      m_edges.emplace_back(from, to);
      m_widths.push_back(border_mm({from, to}));
    }
  }

  std::vector<Region> taken(CornerStyle corners) const {
    std::vector<Region> parts;
    const std::size_t count = m_edges.size();
    for (std::size_t k = 0; k < count; ++k) {
      if (m_widths[k] <= 0) continue;
      const std::size_t before = (k + count - 1) % count, after = (k + 1) % count;
      const Vec2 start = inner(before, k, m_edges[k].first, k, corners),
                 end = inner(k, after, m_edges[k].second, k, corners);
      Polygon strip{m_edges[k].first, m_edges[k].second, end, start};
      if (!isSimple(strip)) { // a short edge between wide borders: turned inside out
        const Vec2 deep = m_widths[k] * inwards(k);
        strip[2] = strip[1] + deep, strip[3] = strip[0] + deep;
      }
      add(parts, std::move(strip));
      if (corners == CornerStyle::Round && standsIn(k, after) && even(k, after))
        add(parts, arc(m_edges[k].second, inwards(after), inwards(k), m_widths[k]));
      else if (standsIn(k, after) && m_widths[after] > 0)
        add(parts, {m_edges[k].second, inner(k, after, m_edges[k].second, after, corners), end});
    }
    return parts;
  }

private:
  Vec2 along(std::size_t k) const { return (m_edges[k].second - m_edges[k].first).normalized(); }
  Vec2 inwards(std::size_t k) const {
    const Vec2 d = along(k);
    return {-d.y(), d.x()};
  }
  bool standsIn(std::size_t k, std::size_t next) const {
    return cross2(along(k), along(next)) < -kOnePoint_mm;
  }
  bool even(std::size_t k, std::size_t next) const {
    return std::abs(m_widths[k] - m_widths[next]) < kOnePoint_mm;
  }

  /// Where the inner line of edge `of` ends at the corner between two edges.
  Vec2 inner(std::size_t k, std::size_t next, const Vec2& corner, std::size_t of,
             CornerStyle corners) const {
    const Vec2 square = corner + m_widths[of] * inwards(of);
    if (corners == CornerStyle::Round && standsIn(k, next) && even(k, next)) return square;
    const double turn = cross2(along(k), along(next));
    if (std::abs(turn) < 1e-6) return square;
    // Both inner lines: n . (p - corner) = width.
    const Vec2 a = inwards(k), b = inwards(next);
    const double det = cross2(a, b);
    const Vec2 mitre((m_widths[k] * b.y() - m_widths[next] * a.y()) / det,
                     (a.x() * m_widths[next] - b.x() * m_widths[k]) / det);
    const double widest = std::max(m_widths[k], m_widths[next]);
    if (mitre.norm() > kLongestMitre * widest) return square;
    // Of a wide border beside a narrow one a flat corner would leave less than its width.
    const bool back = mitre.dot(along(k)) < 0 || mitre.dot(along(next)) > 0;
    return standsIn(k, next) && back ? square : Vec2(corner + mitre);
  }

  /// From one direction to another about a corner, the short way.
  static Polygon arc(const Vec2& corner, const Vec2& from, const Vec2& to, double radius_mm) {
    constexpr double kStep_rad = radians(6);
    const double turn = std::atan2(cross2(from, to), from.dot(to));
    const int steps = std::max(2, static_cast<int>(std::ceil(std::abs(turn) / kStep_rad)));
    Polygon pie{corner};
    for (int k = 0; k <= steps; ++k) {
      const double angle = turn * k / steps, c = std::cos(angle), s = std::sin(angle);
      pie.push_back(corner +
                    radius_mm * Vec2(c * from.x() - s * from.y(), s * from.x() + c * from.y()));
    }
    return pie;
  }

  static void add(std::vector<Region>& parts, Polygon part) {
    if (!isSimple(part)) return;
    const double area = signedArea_mm2(part);
    if (std::abs(area) < kRegionSpeck_mm2) return;
    if (area < 0) std::ranges::reverse(part);
    parts.emplace_back(std::move(part));
  }

  std::vector<Edge> m_edges;
  std::vector<double> m_widths;
};

} // namespace

std::vector<Region> withoutBorder(const Region& region,
                                  const std::function<double(const Edge&)>& border_mm,
                                  CornerStyle corners) {
  const std::vector<Edge> edges = edgesOf(region);
  if (edges.empty()) return {};
  const double first = border_mm(edges.front());
  const bool even = std::ranges::all_of(
      edges, [&](const Edge& edge) { return std::abs(border_mm(edge) - first) < kOnePoint_mm; });
  if (even) return first <= 0 ? std::vector<Region>{region} : offset(region, -first, corners);
  std::vector<Region> taken;
  for (const Polygon* ring : ringsOf(region))
    for (Region& part : Strip(*ring, border_mm).taken(corners))
      taken.push_back(std::move(part));
  return without(region, taken);
}

std::optional<Vec2> narrowPlace(const Region& region, double least_mm) {
  // What a disc of that width reaches everywhere is wide enough; of the rest only corners may be
  // left, and those are small beside the disc.
  constexpr double kHair_mm = 0.01, kCornerShare = 0.75;
  const double radius = 0.5 * least_mm - kHair_mm;
  const std::vector<Region> middle = offset(region, -radius, CornerStyle::Sharp);
  if (middle.empty()) return centroidOf(region);
  std::vector<Region> reached;
  for (const Region& part : middle)
    for (Region& wide : offset(part, radius + kHair_mm, CornerStyle::Sharp))
      reached.push_back(std::move(wide));
  for (const Region& rest : without(region, reached))
    if (area_mm2(rest) > kCornerShare * radius * radius) return centroidOf(rest);
  // Parted in the middle, and yet one piece of paper: the neck lies between.
  if (middle.size() < 2) return std::nullopt;
  const Vec2 a = centroidOf(middle[0]), b = centroidOf(middle[1]);
  return 0.5 * (a + b);
}

Vec2 nearestOn(const Edge& edge, const Vec2& at) {
  const Vec2 along = edge.second - edge.first;
  const double share = std::clamp(along.dot(at - edge.first) / along.squaredNorm(), 0.0, 1.0);
  return edge.first + share * along;
}

} // namespace hinge
