// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/flat_piece.h"
#include "core/pieces/pocket.h"
#include "core/production/flat_pattern.h"
#include "core/production/labels.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <array>
#include <cmath>

namespace hinge {
namespace {

/// The last stretch of a slit with a catch is cut, not cut away: shortens its sides to where the
/// catch begins and closes both ends of the wide part.
void closeCatch(std::vector<Edge>& edges, const Slit& slit) {
  const Vec2 by = slit.catch_mm * slit.wayOut(), mouth = 0.5 * (slit.lips[0] + slit.lips[1]);
  const auto same = [](const Vec2& a, const Vec2& b) { return (a - b).norm() < kSameVertex_mm; };
  for (std::size_t k : {0u, 1u}) {
    const Vec2 begins = slit.lips[k] - by;
    for (Edge& edge : edges)
      for (auto [end, other] : {std::pair{&edge.first, &edge.second}, {&edge.second, &edge.first}})
        if (same(*end, slit.lips[k]) && same(*other, slit.inner[k])) *end = begins;
  }
  // The walk round the piece comes to the right lip first.
  edges.insert(
      edges.end(),
      {{slit.lips[1] - by, slit.lips[0] - by}, {slit.lips[0], mouth}, {mouth, slit.lips[1]}});
}

/// Joins edges end to end, each in its direction.
std::vector<FlatLine> chained(std::vector<Edge> edges) {
  std::vector<FlatLine> lines;
  while (!edges.empty()) {
    FlatLine line{LineKind::Cut, {edges.back().first, edges.back().second}, false};
    edges.pop_back();
    for (bool grown = true; grown;) {
      grown = false;
      for (std::size_t i = 0; i < edges.size() && !grown; ++i) {
        if ((edges[i].first - line.corners.back()).norm() < 1e-7)
          line.corners.push_back(edges[i].second), grown = true;
        else if ((edges[i].second - line.corners.front()).norm() < 1e-7)
          line.corners.insert(line.corners.begin(), edges[i].first), grown = true;
        if (grown) edges.erase(edges.begin() + static_cast<std::ptrdiff_t>(i));
      }
    }
    if ((line.corners.front() - line.corners.back()).norm() < 1e-7)
      line.corners.pop_back(), line.closed = true;
    lines.push_back(std::move(line));
  }
  return lines;
}

/// Corners of neighbours that meet an edge half-way are none of the line's own.
void dropPassing(FlatLine& line, const FlatPattern& pattern) {
  const auto passes = [&](const Vec2& p) {
    for (std::size_t v = 0; v < pattern.vertices.size(); ++v)
      if (pattern.onlyBeside[v] && (pattern.vertices[v] - p).norm() < 1e-7) return true;
    return false;
  };
  auto& c = line.corners;
  for (std::size_t k = line.closed ? 0 : 1; k + (line.closed ? 0 : 1) < c.size();) {
    const Vec2 in = c[k] - c[(k + c.size() - 1) % c.size()], out = c[(k + 1) % c.size()] - c[k];
    const bool straight = std::abs(cross2(in, out)) < 1e-9 * in.norm() * out.norm();
    if (straight && c.size() > 3 && passes(c[k]))
      c.erase(c.begin() + static_cast<std::ptrdiff_t>(k));
    else
      ++k;
  }
}

/// Where the knife goes: the border of the paper and the cuts in it.
std::vector<FlatLine> cutLines(const Piece& piece, const FlatPattern& pattern) {
  std::vector<Edge> edges;
  std::vector<FlatLine> cuts;
  for (const PatternEdge& edge : pattern.edges) {
    const bool inside =
        edge.beyond && pattern.faces[edge.face].panel == pattern.faces[*edge.beyond].panel;
    if (edge.kind == EdgeKind::Border || (edge.kind == EdgeKind::Cut && !inside))
      edges.push_back({pattern.vertices[edge.from], pattern.vertices[edge.to]});
  }
  for (const Feature& feature : piece.features) {
    if (const Slit* slit = std::get_if<Slit>(&feature); slit && slit->catch_mm > 0) {
      closeCatch(edges, *slit);
      const Vec2 mouth = 0.5 * (slit->lips[0] + slit->lips[1]);
      cuts.push_back({LineKind::Cut, {mouth - slit->catch_mm * slit->wayOut(), mouth}, false});
    }
    if (const Cut* cut = std::get_if<Cut>(&feature))
      cuts.push_back({LineKind::Cut, {cut->from, cut->to}, false});
  }
  std::vector<FlatLine> lines = chained(std::move(edges));
  for (FlatLine& line : lines)
    dropPassing(line, pattern);
  lines.insert(lines.end(), cuts.begin(), cuts.end());
  return lines;
}

FlatPiece flatOf(const Assembly& assembly, PieceIndex index, const std::vector<Pocket>& pockets) {
  const Piece& piece = assembly.pieces[index];
  FlatPiece flat{index,      cutLines(piece, flatPattern(assembly, index)), {}, {}, {}, {}, {},
                 piece.paper};
  for (FoldIndex f : assembly.folds.indices()) {
    const Fold& fold = assembly.folds[f];
    if (assembly.panels[fold.left].piece == index)
      flat.lines.push_back(
          {fold.sense == FoldSense::Mountain ? LineKind::Mountain : LineKind::Valley,
           {fold.from, fold.to},
           false});
  }
  for (PanelIndex p : piece.panels)
    flat.bounds.add(boundsOf(assembly.panels[p].outline));
  flat.labels = labelsOf(assembly, index);
  for (const auto& [g, glue] : assembly.every<Glue>()) {
    const auto glued = gluedOf(assembly, glue);
    const auto over = std::ranges::find_if(pockets, [made = g, tab = glue.tab](const Pocket& p) {
      return p.glue == made && p.covers && p.panel == tab;
    });
    if (assembly.panels[glue.tab].piece == index) {
      if (over == pockets.end() || !glue.area.empty())
        for (const Region& part : glued)
          flat.glue.push_back({glue.tab, part, glue.byFace});
      else
        for (const Polygon& strip : over->strips)
          flat.glue.push_back({glue.tab, strip, glue.byFace});
    }
    if (assembly.panels[glue.host].piece == index)
      for (const Region& part : glued)
        flat.marks.push_back({glue.tab, mapped(part, glue.tabToHost), glue.onHostFace()});
  }
  return flat;
}

} // namespace

Region paperOf(const FlatPiece& piece) {
  std::vector<Polygon> rings;
  for (const FlatLine& line : piece.lines)
    if (line.kind == LineKind::Cut && line.closed) rings.push_back(line.corners);
  if (rings.empty()) return {};
  std::ranges::sort(rings, std::ranges::greater(),
                    [](const Polygon& ring) { return std::abs(signedArea_mm2(ring)); });
  Region region(rings.front());
  if (signedArea_mm2(region.rim) < 0) std::ranges::reverse(region.rim);
  for (std::size_t k = 1; k < rings.size(); ++k)
    region.holes.push_back(
        signedArea_mm2(rings[k]) > 0 ? Polygon(rings[k].rbegin(), rings[k].rend()) : rings[k]);
  return region;
}

FlatPiece flatPiece(const Assembly& assembly, PieceIndex piece) {
  return flatOf(assembly, piece, pocketsOf(assembly));
}

std::vector<FlatPiece> flatPieces(const Assembly& assembly) {
  std::vector<FlatPiece> all;
  const auto pockets = pocketsOf(assembly);
  for (PieceIndex p : assembly.pieces.indices())
    all.push_back(flatOf(assembly, p, pockets));
  return all;
}

SheetLayout layOut(const std::vector<FlatPiece>& pieces, double sheetWidth_mm,
                   double sheetHeight_mm, double margin_mm, double gap_mm, bool fromTop,
                   double strip_mm) {
  SheetLayout layout{sheetWidth_mm, sheetHeight_mm, margin_mm, {}, 0};
  const double above_mm = sheetHeight_mm - strip_mm; // height of the sheet over the strip
  const double width = sheetWidth_mm - 2 * margin_mm, height = above_mm - 2 * margin_mm;
  struct Item {
    const FlatPiece* piece;
    bool turned;
    Vec2 size;
  };
  std::vector<Item> fitting, whole, oversize;
  const auto onSheet = [&](const Vec2& size) {
    return size.x() <= sheetWidth_mm + kSamePoint_mm && size.y() <= sheetHeight_mm + kSamePoint_mm;
  };
  for (const FlatPiece& piece : pieces) {
    const Vec2 size = piece.bounds.size(), across(size.y(), size.x());
    const bool upright = size.x() <= width && size.y() <= height,
               turned = across.x() <= width && across.y() <= height;
    // Lying pieces make low rows, which waste less.
    const bool lie = turned && (!upright || (size.y() > size.x() && size.y() <= width));
    if (upright || turned)
      fitting.push_back({&piece, lie, lie ? across : size});
    else if (onSheet(size))
      whole.push_back({&piece, false, size});
    else if (onSheet(across))
      whole.push_back({&piece, true, across});
    else
      oversize.push_back({&piece, false, size});
  }
  std::ranges::stable_sort(fitting,
                           [](const Item& a, const Item& b) { return a.size.y() > b.size.y(); });
  const auto put = [&](const Item& item, int sheet, const Vec2& corner, bool large) {
    SheetPlace place{item.piece->piece, sheet, item.turned, Vec2::Zero(), large};
    Box2 box;
    for (const Vec2& p : {item.piece->bounds.low, item.piece->bounds.high})
      box.add(place.onSheet(p));
    place.offset = corner - box.low;
    layout.places.push_back(place);
  };
  for (const Item& item : whole) {
    const Vec2 middle(0.5 * sheetWidth_mm, 0.5 * sheetHeight_mm - strip_mm);
    put(item, layout.sheets++, middle - 0.5 * item.size, false);
    layout.places.back().toTheEdge = true;
  }
  for (const Item& item : oversize)
    put(item, layout.sheets++, Vec2(margin_mm, margin_mm), true);
  struct Row {
    int sheet;
    double y, height, used;
  };
  std::vector<Row> rows;
  double top = 0;
  int sheet = -1;
  for (const Item& item : fitting) {
    auto row = std::ranges::find_if(rows, [&](const Row& r) {
      return r.used + item.size.x() <= width + 1e-9 && item.size.y() <= r.height + 1e-9;
    });
    if (row == rows.end()) {
      if (sheet < 0 || top + item.size.y() > height + 1e-9) sheet = layout.sheets++, top = 0;
      rows.push_back({sheet, top, item.size.y(), 0});
      row = rows.end() - 1;
      top += item.size.y() + gap_mm;
    }
    const double y = fromTop ? above_mm - margin_mm - row->y - item.size.y() : margin_mm + row->y;
    put(item, row->sheet, Vec2(margin_mm + row->used, y), false);
    row->used += item.size.x() + gap_mm;
  }
  return layout;
}

} // namespace hinge
