#include "core/production/flat_piece.h"
#include "core/states/pocket.h"
#include <algorithm>
#include <array>
#include <cmath>

namespace hinge {
namespace {

/// Where a structure is cut from a sheet, both sides of the slit are edges: one cut makes them.
/// Splits edges where others begin and keeps one of each.
std::vector<std::pair<Vec2, Vec2>> onceEach(const std::vector<std::pair<Vec2, Vec2>>& edges) {
  constexpr double kSame_mm = 1e-6;
  std::vector<std::pair<Vec2, Vec2>> once;
  for (const auto& [from, to] : edges) {
    const double length = (to - from).norm();
    const Vec2 along = (to - from) / length;
    std::vector<double> stops{0, length};
    for (const auto& other : edges)
      for (const Vec2& p : {other.first, other.second}) {
        const double at = along.dot(p - from);
        if (at > kSame_mm && at < length - kSame_mm && std::abs(cross2(along, p - from)) < kSame_mm)
          stops.push_back(at);
      }
    std::ranges::sort(stops);
    for (std::size_t k = 0; k + 1 < stops.size(); ++k) {
      if (stops[k + 1] - stops[k] < kSame_mm) continue;
      const Vec2 a = from + stops[k] * along, b = from + stops[k + 1] * along;
      const bool known = std::ranges::any_of(once, [&](const auto& e) {
        return ((e.first - a).norm() < kSame_mm && (e.second - b).norm() < kSame_mm) ||
               ((e.first - b).norm() < kSame_mm && (e.second - a).norm() < kSame_mm);
      });
      if (!known) once.push_back({a, b});
    }
  }
  return once;
}

/// A slit that ends in the mouth of a wide one is its catch: there the paper is cut, not cut away.
/// Shortens the sides of the wide slit to where the catch begins and closes both of its ends.
void closeCatches(std::vector<std::pair<Vec2, Vec2>>& edges, const Piece& piece) {
  constexpr double kSame_mm = 1e-6, kWidest_mm = 3;
  for (const auto& [from, to] : piece.slits) {
    const double length = (to - from).norm();
    const Vec2 u = (to - from) / length;
    std::array<std::pair<Vec2, Vec2>*, 2> sides{nullptr, nullptr};
    for (auto& edge : edges) {
      const Vec2 d = edge.second - edge.first;
      const double away = cross2(u, edge.first - from);
      if (std::abs(cross2(u, d)) > kSame_mm * std::max(1.0, d.norm()) ||
          std::abs(away) < kSame_mm || std::abs(away) > 0.5 * kWidest_mm)
        continue;
      const double low = std::min(u.dot(edge.first - from), u.dot(edge.second - from)),
                   high = std::max(u.dot(edge.first - from), u.dot(edge.second - from));
      if (low < -kSame_mm && high > length - kWidest_mm) sides[away > 0] = &edge;
    }
    if (!sides[0] || !sides[1]) continue; // a cut of its own
    // The walk round the piece goes into the slit along one side and comes out along the other.
    std::array<Vec2, 2> inner, mouth;
    for (auto* side : sides) {
      const bool in = u.dot(side->first - from) > u.dot(side->second - from);
      Vec2& end = in ? side->first : side->second;
      const std::size_t k = in ? 0 : 1;
      mouth[k] = end, end -= u.dot(end - from) * u, inner[k] = end;
    }
    edges.insert(edges.end(), {{inner[1], inner[0]}, {mouth[0], to}, {to, mouth[1]}});
  }
}

/// Edges of the panels that are not folds, joined end to end.
std::vector<FlatLine> cutLines(const Assembly& assembly, const Piece& piece) {
  std::vector<std::pair<Vec2, Vec2>> edges;
  for (PanelIndex p : piece.panels) {
    const auto folds = assembly.foldsOf(p);
    for (const auto& [from, to] : edgesOf(assembly.panels[p].outline)) {
      const bool fold = std::ranges::any_of(folds, [&](FoldIndex f) {
        return distanceToSegment(0.5 * (from + to), assembly.folds[f].from, assembly.folds[f].to) <
               1e-6;
      });
      if (!fold) edges.push_back({from, to});
    }
  }
  const bool cutFromIt = std::ranges::any_of(
      piece.panels, [&](PanelIndex p) { return assembly.panels[p].owner != piece.owner; });
  if (cutFromIt) edges = onceEach(edges);
  closeCatches(edges, piece);
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

} // namespace

namespace {

FlatPiece flatOf(const Assembly& assembly, PieceIndex index, const std::vector<Pocket>& pockets) {
  const Piece& piece = assembly.pieces[index];
  FlatPiece flat{index, cutLines(assembly, piece), {}, {}, {}, {}, {}};
  for (const auto& [from, to] : piece.slits)
    flat.lines.push_back({LineKind::Cut, {from, to}, false});
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
  // The base has structures in its middle: its name stands at its foot.
  flat.labels = {{index, piece.owner ? flat.bounds.centre()
                                     : Vec2(0.5 * flat.bounds.high.x(), flat.bounds.low.y() + 8)}};
  for (std::size_t g = 0; g < assembly.glues.size(); ++g) {
    const Glue& glue = assembly.glues[g];
    const Polygon& outline = assembly.panels[glue.tab].outline;
    const auto over = std::ranges::find_if(
        pockets, [&](const Pocket& p) { return p.glue == g && p.covers && p.panel == glue.tab; });
    if (assembly.panels[glue.tab].piece == index) {
      if (over == pockets.end())
        flat.glue.push_back({glue.tab, outline, glue.byFace});
      else
        for (const Polygon& strip : over->strips)
          flat.glue.push_back({glue.tab, strip, glue.byFace});
    }
    if (assembly.panels[glue.host].piece == index) {
      FlatArea mark{glue.tab, {}, glue.onHostFace()};
      for (const Vec2& p : outline)
        mark.outline.push_back((glue.tabToHost * lift(p)).head<2>());
      flat.marks.push_back(std::move(mark));
    }
  }
  return flat;
}

} // namespace

FlatPiece flatPiece(const Assembly& assembly, PieceIndex piece, double thickness_mm) {
  return flatOf(assembly, piece, pocketsOf(assembly, thickness_mm));
}

std::vector<FlatPiece> flatPieces(const Assembly& assembly, double thickness_mm) {
  std::vector<FlatPiece> all;
  const auto pockets = pocketsOf(assembly, thickness_mm);
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
  constexpr double kSame_mm = 1e-6;
  const auto onSheet = [&](const Vec2& size) {
    return size.x() <= sheetWidth_mm + kSame_mm && size.y() <= sheetHeight_mm + kSame_mm;
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
