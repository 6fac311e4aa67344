// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/piece_sheet.h"
#include <algorithm>
#include <numeric>

namespace hinge {
namespace {

bool meetsLines(const Polygon& window, const PieceWork& work) {
  const auto cross = [](const Edge& a, const Edge& b) {
    const Vec2 u = a.second - a.first, v = b.second - b.first;
    return (cross2(u, b.first - a.first) > 0) != (cross2(u, b.second - a.first) > 0) &&
           (cross2(v, a.first - b.first) > 0) != (cross2(v, a.second - b.first) > 0);
  };
  for (const Edge& e : edgesOf(window)) {
    for (const WorkLine& line : work.lines)
      if (cross(e, {line.from, line.to}) || distanceToSegment(e.first, line.from, line.to) < 1e-6)
        return true;
    for (const Edge& rim : edgesOf(work.outline))
      if (cross(e, rim)) return true;
  }
  return false;
}

} // namespace

PieceSheet::PieceSheet(const PieceWork& work) {
  // Of two lines on one another the first counts: what is cut along a score is cut off there.
  std::vector<std::size_t> cutsFirst(work.lines.size());
  std::iota(cutsFirst.begin(), cutsFirst.end(), 0u);
  std::ranges::stable_partition(
      cutsFirst, [&](std::size_t k) { return work.lines[k].kind == WorkLine::Kind::Cut; });
  std::vector<Edge> edges;
  for (const std::size_t k : cutsFirst)
    edges.push_back({work.lines[k].from, work.lines[k].to});
  std::vector<const Polygon*> open;
  for (std::size_t k = 0; k < work.windows.size(); ++k) {
    if (!meetsLines(work.windows[k], work)) {
      holes.push_back(k);
      continue;
    }
    open.push_back(&work.windows[k]);
    for (const Edge& e : edgesOf(work.windows[k]))
      edges.push_back(e);
  }
  parts = subdivide(work.outline, edges);
  const auto asInWork = [&](std::size_t& line) {
    if (line < cutsFirst.size()) line = cutsFirst[line];
  };
  for (Subdivision::Border& border : parts.borders)
    asInWork(border.line);
  for (auto& [line, stretch] : parts.loose)
    asInWork(line);
  for (const Region& face : parts.faces) {
    const Vec2 inside = centroidOf(convexParts(face).front());
    paper.push_back(
        std::ranges::none_of(open, [&](const Polygon* w) { return contains(*w, inside); }));
  }
}

std::size_t PieceSheet::faceAt(const Vec2& at) const {
  std::size_t best = parts.faces.size();
  for (std::size_t f = 0; f < parts.faces.size() && best == parts.faces.size(); ++f)
    if (paper[f] && contains(parts.faces[f], at, 1e-6)) best = f;
  return best;
}

} // namespace hinge
