// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/flat_pattern.h"
#include "core/geom/subdivision.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <map>

namespace hinge {
namespace {

class Patterning {
public:
  Patterning(const Assembly& assembly, PieceIndex piece) : m_assembly(assembly) {
    m_pattern.piece = piece;
  }

  FlatPattern run() {
    for (PanelIndex p : m_assembly.pieces[m_pattern.piece].panels)
      addFaces(p);
    meetAtVertices();
    for (std::size_t f = 0; f < m_pattern.faces.size(); ++f)
      addEdges(f);
    for (PatternEdge& edge : m_pattern.edges)
      tell(edge);
    return std::move(m_pattern);
  }

private:
  std::size_t vertex(const Vec2& at) {
    for (std::size_t k = 0; k < m_pattern.vertices.size(); ++k)
      if ((m_pattern.vertices[k] - at).cwiseAbs().maxCoeff() < kSameVertex_mm) return k;
    m_pattern.vertices.push_back(at);
    return m_pattern.vertices.size() - 1;
  }

  void addFaces(PanelIndex p) {
    const Region& outline = m_assembly.panels[p].outline;
    const std::vector<Edge> cuts = cutsIn(m_assembly, p);
    std::vector<Region> parts{outline.rim};
    if (!outline.holes.empty() || !cuts.empty())
      parts = subdivide(outline, partingLines(outline, cuts)).faces;
    for (const Region& part : parts) { // without holes by now
      PatternFace face{p, {}};
      for (const Vec2& corner : part.rim)
        face.corners.push_back(vertex(corner));
      m_pattern.faces.push_back(std::move(face));
    }
  }

  /// Edges end at every vertex that lies on them.
  void meetAtVertices() {
    m_pattern.onlyBeside.assign(m_pattern.vertices.size(), 0);
    for (PatternFace& face : m_pattern.faces) {
      std::vector<std::size_t> corners;
      for (std::size_t k = 0; k < face.corners.size(); ++k) {
        const std::size_t a = face.corners[k], b = face.corners[(k + 1) % face.corners.size()];
        corners.push_back(a);
        for (std::size_t v : between(a, b))
          corners.push_back(v), m_pattern.onlyBeside[v] = 1;
      }
      face.corners = std::move(corners);
    }
  }

  std::vector<std::size_t> between(std::size_t a, std::size_t b) const {
    const Vec2 from = m_pattern.vertices[a], way = m_pattern.vertices[b] - from;
    const double length = way.norm();
    std::vector<std::pair<double, std::size_t>> met;
    for (std::size_t v = 0; v < m_pattern.vertices.size(); ++v) {
      if (v == a || v == b) continue;
      const Vec2 d = m_pattern.vertices[v] - from;
      const double at = way.dot(d) / length;
      if (at > kSameVertex_mm && at < length - kSameVertex_mm &&
          std::abs(cross2(way, d)) < kSameVertex_mm * length)
        met.push_back({at, v});
    }
    std::ranges::sort(met);
    std::vector<std::size_t> all;
    for (const auto& [at, v] : met)
      all.push_back(v);
    return all;
  }

  void addEdges(std::size_t f) {
    const auto& corners = m_pattern.faces[f].corners;
    for (std::size_t k = 0; k < corners.size(); ++k) {
      const std::size_t a = corners[k], b = corners[(k + 1) % corners.size()];
      const auto [known, isNew] = m_known.emplace(std::minmax(a, b), m_pattern.edges.size());
      if (isNew)
        m_pattern.edges.push_back({EdgeKind::Border, a, b, f, std::nullopt, {}});
      else
        m_pattern.edges[known->second].beyond = f;
    }
  }

  void tell(PatternEdge& edge) const {
    if (!edge.beyond) return; // the border
    const PanelIndex left = m_pattern.faces[edge.face].panel,
                     right = m_pattern.faces[*edge.beyond].panel;
    const Vec2 middle = 0.5 * (m_pattern.vertices[edge.from] + m_pattern.vertices[edge.to]);
    const auto on = [&](const Vec2& from, const Vec2& to) {
      return distanceToSegment(middle, from, to) < kSameVertex_mm;
    };
    if (left == right) {
      const auto cuts = cutsIn(m_assembly, left);
      const bool cut =
          std::ranges::any_of(cuts, [&](const Edge& c) { return on(c.first, c.second); });
      edge.kind = cut ? EdgeKind::Cut : EdgeKind::Join;
      return;
    }
    edge.kind = EdgeKind::Cut;
    for (FoldIndex f : m_assembly.foldsOf(left)) {
      const Fold& fold = m_assembly.folds[f];
      if ((fold.left != right && fold.right != right) || !on(fold.from, fold.to)) continue;
      edge.kind = EdgeKind::Fold, edge.fold = f;
      return;
    }
  }

  const Assembly& m_assembly;
  FlatPattern m_pattern;
  std::map<std::pair<std::size_t, std::size_t>, std::size_t> m_known; ///< ends -> edge
};

} // namespace

FlatPattern flatPattern(const Assembly& assembly, PieceIndex piece) {
  return Patterning(assembly, piece).run();
}

} // namespace hinge
