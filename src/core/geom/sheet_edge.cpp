// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/sheet_edge.h"
#include "core/geom/rim.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {
constexpr double kOnBox_mm = 1e-6;
} // namespace

std::string_view wordOf(SheetEdge side) {
  return kSideWords[static_cast<std::size_t>(side)];
}

SheetEdge exchanged(SheetEdge side) {
  switch (side) {
  case SheetEdge::Left: return SheetEdge::Right;
  case SheetEdge::Right: return SheetEdge::Left;
  case SheetEdge::Bottom:
  case SheetEdge::Top: break;
  }
  return side;
}

Vec2 outOf(SheetEdge side) {
  switch (side) {
  case SheetEdge::Left: return {-1, 0};
  case SheetEdge::Right: return {1, 0};
  case SheetEdge::Bottom: return {0, -1};
  case SheetEdge::Top: return {0, 1};
  }
  return {0, 0};
}

SheetEdge sideTowards(const Vec2& out) {
  if (std::abs(out.x()) > std::abs(out.y()))
    return out.x() < 0 ? SheetEdge::Left : SheetEdge::Right;
  return out.y() < 0 ? SheetEdge::Bottom : SheetEdge::Top;
}

std::optional<std::size_t> edgeOnSide(const Polygon& rim, SheetEdge side) {
  const Vec2 out = outOf(side);
  double reach = -1e300;
  for (const Vec2& p : rim)
    reach = std::max(reach, out.dot(p));
  std::optional<std::size_t> onBox, facing;
  const auto edges = edgesOf(rim);
  const auto length = [&](std::size_t k) { return (edges[k].second - edges[k].first).norm(); };
  const auto longer = [&](std::size_t k, const std::optional<std::size_t>& than) {
    return !than || length(k) > length(*than);
  };
  for (std::size_t k = 0; k < edges.size(); ++k) {
    const auto on = [&](const Vec2& p) { return reach - out.dot(p) <= kOnBox_mm; };
    if (on(edges[k].first) && on(edges[k].second) && longer(k, onBox)) onBox = k;
    if (outwards(rim, k).dot(out) > std::sqrt(0.5) + 1e-9 && longer(k, facing)) facing = k;
  }
  return onBox ? onBox : facing;
}

} // namespace hinge
