// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#ifndef Q_MOC_RUN
#include "core/geom/vectors.h"
#include <map>
#include <nlohmann/json.hpp>
#include <set>
#include <string>
#include <vector>
#endif

namespace hinge::test {

/// A FOLD file read back as any other program would: what a frame does not say it takes from its
/// parent. Nothing of the program's own model is used.
class FoldReading {
public:
  explicit FoldReading(const std::string& text) : m_file(nlohmann::json::parse(text)) {}

  std::size_t folded() const { return m_file["file_frames"].size(); }
  const nlohmann::json& flat(const char* key) const { return m_file[key]; }
  const nlohmann::json& of(std::size_t frame, const char* key) const {
    const auto& own = m_file["file_frames"][frame];
    return own.contains(key) ? own[key] : m_file[key];
  }
  static Vec3 point(const nlohmann::json& p) {
    return {p[0], p[1], p.size() > 2 ? p[2].get<double>() : 0.0};
  }

  /// Largest change of a distance between two corners of one face, in mm.
  double stretched(std::size_t frame) const {
    const auto &flatFaces = m_file["faces_vertices"], &faces = of(frame, "faces_vertices");
    const auto &from = m_file["vertices_coords"], &to = of(frame, "vertices_coords");
    if (flatFaces.size() != faces.size()) return 1e300;
    double worst = 0;
    for (std::size_t f = 0; f < faces.size(); ++f)
      for (std::size_t i = 0; i < faces[f].size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
          worst = std::max(worst, std::abs((point(from[flatFaces[f][i].get<std::size_t>()]) -
                                            point(from[flatFaces[f][j].get<std::size_t>()]))
                                               .norm() -
                                           (point(to[faces[f][i].get<std::size_t>()]) -
                                            point(to[faces[f][j].get<std::size_t>()]))
                                               .norm()));
    return worst;
  }

  /// Largest distance between the two sides of a crease, in mm.
  double torn(std::size_t frame) const {
    const auto &flatFaces = m_file["faces_vertices"], &faces = of(frame, "faces_vertices");
    const auto& at = of(frame, "vertices_coords");
    std::map<std::set<std::size_t>, std::vector<std::map<std::size_t, std::size_t>>> sides;
    for (std::size_t f = 0; f < faces.size(); ++f)
      for (std::size_t k = 0; k < faces[f].size(); ++k) {
        const std::size_t n = (k + 1) % faces[f].size();
        const std::size_t a = flatFaces[f][k], b = flatFaces[f][n];
        sides[{a, b}].push_back({{a, faces[f][k]}, {b, faces[f][n]}});
      }
    double worst = 0;
    for (std::size_t e = 0; e < m_file["edges_vertices"].size(); ++e) {
      const std::string letter = m_file["edges_assignment"][e];
      if (letter == "B" || letter == "C") continue;
      const std::size_t a = m_file["edges_vertices"][e][0], b = m_file["edges_vertices"][e][1];
      const auto& both = sides[{a, b}];
      if (both.size() != 2) return 1e300; // a crease has paper on both sides
      for (std::size_t v : {a, b})
        worst = std::max(worst, (point(at[both[0].at(v)]) - point(at[both[1].at(v)])).norm());
    }
    return worst;
  }

  /// Vertices inside edges, edges on one another and edges that cross in the flat pattern.
  int notPlanar() const {
    constexpr double kSame_mm = 1e-4;
    std::vector<std::pair<Vec2, Vec2>> edges;
    for (const auto& e : m_file["edges_vertices"]) {
      const auto at = [&](int k) {
        return Vec2(
            point(m_file["vertices_coords"][e[static_cast<std::size_t>(k)].get<std::size_t>()])
                .head<2>());
      };
      edges.push_back({at(0), at(1)});
    }
    int wrong = 0;
    for (std::size_t i = 0; i < edges.size(); ++i)
      for (std::size_t j = 0; j < edges.size(); ++j) {
        if (i == j) continue;
        const auto& [a, b] = edges[i];
        const auto& [c, d] = edges[j];
        const Vec2 u = (b - a).normalized();
        for (const Vec2& p : {c, d}) {
          const double along = u.dot(p - a);
          wrong += along > kSame_mm && along < (b - a).norm() - kSame_mm &&
                   std::abs(cross2(u, p - a)) < kSame_mm;
        }
        const auto same = [](const Vec2& p, const Vec2& q) { return (p - q).norm() < kSame_mm; };
        if (j > i) wrong += (same(a, c) && same(b, d)) || (same(a, d) && same(b, c));
        const Vec2 v = (d - c).normalized();
        const double s = cross2(u, c - a), t = cross2(u, d - a), p = cross2(v, a - c),
                     q = cross2(v, b - c);
        if (j > i)
          wrong += s * t < 0 && p * q < 0 &&
                   std::min({std::abs(s), std::abs(t), std::abs(p), std::abs(q)}) > kSame_mm;
      }
    return wrong;
  }

  /// Creases of the flat pattern that a frame folds the other way round.
  int wrongWay(std::size_t frame) const {
    const auto& angles = of(frame, "edges_foldAngle");
    int wrong = 0;
    for (std::size_t e = 0; e < m_file["edges_assignment"].size(); ++e) {
      const std::string letter = m_file["edges_assignment"][e];
      if (angles[e].is_null() || std::abs(std::abs(angles[e].get<double>()) - 90) > 89.5) continue;
      wrong += (letter == "M" && angles[e] > 0) || (letter == "V" && angles[e] < 0);
    }
    return wrong;
  }

private:
  nlohmann::json m_file;
};

} // namespace hinge::test
