// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/subdivision.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

namespace hinge {
namespace {

/// The sheet's edges and lines as a planar graph; every stretch is walked once in each direction.
class Planar {
public:
  void add(const Vec2& from, const Vec2& to, int line) { m_raw.push_back({from, to, line}); }

  Subdivision run(const Region& outline) {
    split();
    Subdivision result;
    do {
      prune(result);
      walk();
    } while (dropBridges(result));
    sortFaces(outline, result);
    return result;
  }

private:
  struct Raw {
    Vec2 from, to;
    int line; ///< -1: the outline
  };
  struct Half {
    int from, to, line, twin, next = -1, face = -1;
    bool dead = false;
  };

  int node(const Vec2& p) {
    for (std::size_t k = 0; k < m_points.size(); ++k)
      if ((m_points[k] - p).norm() < kSamePoint_mm) return static_cast<int>(k);
    m_points.push_back(p);
    return static_cast<int>(m_points.size()) - 1;
  }

  void split() {
    std::map<std::pair<int, int>, int> known; // stretch -> half edge
    for (const Raw& raw : m_raw) {
      const Vec2 d = raw.to - raw.from;
      const double length = d.norm();
      const Vec2 along = d / length;
      std::vector<double> stops{0, length};
      for (const Raw& other : m_raw) {
        if (&other == &raw) continue;
        for (const Vec2& p : {other.from, other.to})
          if (std::abs(cross2(along, p - raw.from)) < kSamePoint_mm)
            stops.push_back(along.dot(p - raw.from));
        const Vec2 e = other.to - other.from;
        const double den = cross2(d, e);
        if (std::abs(den) < 1e-12) continue;
        const double s = cross2(other.from - raw.from, e) / den,
                     t = cross2(other.from - raw.from, d) / den;
        if (s > 0 && s < 1 && t > 0 && t < 1) stops.push_back(s * length);
      }
      std::ranges::sort(stops);
      int last = node(raw.from);
      for (double at : stops) {
        if (at < kSamePoint_mm || at > length + kSamePoint_mm) continue;
        const int here = node(raw.from + std::min(at, length) * along);
        if (here == last) continue;
        const auto key = std::minmax(last, here);
        if (const auto it = known.find(key); it != known.end()) {
          // A line on the outline is the outline; of two lines on one another the first counts.
        } else {
          known[key] = static_cast<int>(m_halves.size());
          const int k = static_cast<int>(m_halves.size());
          m_halves.push_back({last, here, raw.line, k + 1});
          m_halves.push_back({here, last, raw.line, k});
        }
        last = here;
      }
    }
  }

  /// Takes away what ends inside a face, over and over.
  void prune(Subdivision& result) {
    for (bool changed = true; changed;) {
      changed = false;
      std::vector<int> degree(m_points.size(), 0);
      for (const Half& h : m_halves)
        if (!h.dead) ++degree[static_cast<std::size_t>(h.from)];
      for (std::size_t k = 0; k < m_halves.size(); k += 2) {
        Half& h = m_halves[k];
        if (h.dead || (degree[static_cast<std::size_t>(h.from)] > 1 &&
                       degree[static_cast<std::size_t>(h.to)] > 1))
          continue;
        drop(k, result);
        changed = true;
      }
    }
  }

  void drop(std::size_t k, Subdivision& result) {
    Half& h = m_halves[k];
    h.dead = m_halves[k + 1].dead = true;
    if (h.line >= 0)
      result.loose.push_back({static_cast<std::size_t>(h.line), {point(h.from), point(h.to)}});
  }

  /// What leads from one ring of lines to another has one face on both of its sides: it parts
  /// nothing either.
  bool dropBridges(Subdivision& result) {
    bool any = false;
    for (std::size_t k = 0; k < m_halves.size(); k += 2)
      if (!m_halves[k].dead && m_halves[k].face == m_halves[k + 1].face)
        drop(k, result), any = true;
    return any;
  }

  const Vec2& point(int k) const { return m_points[static_cast<std::size_t>(k)]; }
  Half& half(int k) { return m_halves[static_cast<std::size_t>(k)]; }

  /// Goes round every face.
  void walk() {
    // Round each node the next edge of a face is the one clockwise from where it came.
    std::vector<std::vector<int>> out(m_points.size());
    for (std::size_t k = 0; k < m_halves.size(); ++k)
      if (!m_halves[k].dead)
        out[static_cast<std::size_t>(m_halves[k].from)].push_back(static_cast<int>(k));
    const auto angle = [&](int k) {
      const Vec2 d = point(half(k).to) - point(half(k).from);
      return std::atan2(d.y(), d.x());
    };
    for (auto& around : out)
      std::ranges::sort(around, {}, angle);
    for (std::size_t k = 0; k < m_halves.size(); ++k) {
      if (m_halves[k].dead) continue;
      const auto& around = out[static_cast<std::size_t>(m_halves[k].to)];
      const auto at = std::ranges::find(around, m_halves[k].twin) - around.begin();
      m_halves[k].next =
          around[static_cast<std::size_t>((at + static_cast<std::ptrdiff_t>(around.size()) - 1) %
                                          static_cast<std::ptrdiff_t>(around.size()))];
    }
    m_faces.clear();
    for (Half& h : m_halves)
      h.face = -1;
    for (std::size_t k = 0; k < m_halves.size(); ++k) {
      if (m_halves[k].dead || m_halves[k].face >= 0) continue;
      Polygon face;
      for (int h = static_cast<int>(k); half(h).face < 0; h = half(h).next)
        half(h).face = static_cast<int>(m_faces.size()), face.push_back(point(half(h).from));
      m_faces.push_back(std::move(face));
    }
  }

  void sortFaces(const Region& outline, Subdivision& result) {
    const auto& faces = m_faces;
    std::vector<std::size_t> order;
    for (std::size_t k = 0; k < faces.size(); ++k)
      if (signedArea_mm2(faces[k]) > kSamePoint_mm &&
          contains(outline, centroidOf(convexParts(faces[k]).front()), kSamePoint_mm))
        order.push_back(k);
    std::ranges::stable_sort(order, [&](std::size_t a, std::size_t b) {
      const Vec2 p = centroidOf(faces[a]), q = centroidOf(faces[b]);
      return std::abs(p.x() - q.x()) > 1e-4 ? p.x() < q.x() : p.y() < q.y();
    });
    std::vector<int> place(faces.size(), -1);
    for (std::size_t k = 0; k < order.size(); ++k)
      place[order[k]] = static_cast<int>(k), result.faces.push_back(faces[order[k]]);
    // What is walked clockwise is the outside of lines that hang together: of an island it is a
    // hole in the smallest face round it.
    for (std::size_t k = 0; k < faces.size(); ++k) {
      if (signedArea_mm2(faces[k]) > -kSamePoint_mm) continue;
      const auto host = faceRound(faces[k], result);
      if (!host) continue;
      place[k] = static_cast<int>(*host);
      result.faces[*host].holes.push_back(faces[k]);
    }
    for (std::size_t k = 0; k < m_halves.size(); k += 2) {
      const Half &h = m_halves[k], &twin = m_halves[k + 1];
      if (h.dead || h.line < 0) continue;
      const int left = place[static_cast<std::size_t>(h.face)],
                right = place[static_cast<std::size_t>(twin.face)];
      if (left < 0 || right < 0 || left == right) continue;
      result.borders.push_back({static_cast<std::size_t>(h.line), static_cast<std::size_t>(left),
                                static_cast<std::size_t>(right), point(h.from), point(h.to)});
    }
    join(result);
  }

  static std::optional<std::size_t> faceRound(const Polygon& island, const Subdivision& made) {
    std::optional<std::size_t> best;
    double least = 1e300;
    const auto inside = [&](const Polygon& rim) {
      return std::ranges::all_of(island, [&](const Vec2& p) {
        return encloses(rim, p) && distanceToOutline(rim, p) > kSamePoint_mm;
      });
    };
    for (std::size_t f = 0; f < made.faces.size(); ++f)
      if (const double area = signedArea_mm2(made.faces[f].rim);
          area < least && inside(made.faces[f].rim))
        least = area, best = f;
    return best;
  }

  /// Stretches of one line between the same two faces that continue one another are one border.
  static void join(Subdivision& result) {
    for (std::size_t i = 0; i < result.borders.size(); ++i)
      for (std::size_t j = i + 1; j < result.borders.size();) {
        auto &a = result.borders[i], b = result.borders[j];
        if (a.line == b.line && a.left == b.right && a.right == b.left)
          std::swap(b.left, b.right), std::swap(b.from, b.to);
        const bool same = a.line == b.line && a.left == b.left && a.right == b.right;
        if (same && (a.to - b.from).norm() < kSamePoint_mm)
          a.to = b.to;
        else if (same && (b.to - a.from).norm() < kSamePoint_mm)
          a.from = b.from;
        else {
          ++j;
          continue;
        }
        result.borders.erase(result.borders.begin() + static_cast<std::ptrdiff_t>(j));
        j = i + 1; // what was passed over may continue the longer stretch
      }
  }

  std::vector<Raw> m_raw;
  std::vector<Vec2> m_points;
  std::vector<Half> m_halves;
  std::vector<Polygon> m_faces; ///< as they are walked: holes and the outside clockwise
};

} // namespace

Subdivision subdivide(const Region& outline, const std::vector<Edge>& lines) {
  Planar planar;
  for (const auto& [from, to] : edgesOf(outline))
    planar.add(from, to, -1);
  for (std::size_t k = 0; k < lines.size(); ++k)
    planar.add(lines[k].first, lines[k].second, static_cast<int>(k));
  return planar.run(outline);
}

} // namespace hinge
