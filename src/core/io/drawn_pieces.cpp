// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/polygon.h"
#include "core/geom/rim.h"
#include "core/io/drawing.h"
#include "core/io/text_file.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kLeastArea_mm2 = 0.01, kLeastLine_mm = 0.5, kStraight_mm = 1e-6;
constexpr std::size_t kMostPieces = 200, kMostPaths = 5000;

std::string lower(std::string text) {
  std::ranges::transform(text, text.begin(), [](unsigned char c) { return std::tolower(c); });
  return text;
}

/// Paths that end where others begin become one; ends within kJoin_mm meet.
class Chains {
public:
  void add(std::vector<Vec2> points, bool closed) {
    if (closed)
      m_closed.push_back(std::move(points));
    else
      m_open.push_back(std::move(points));
  }
  void join() {
    // Each stretch is taken up once and grown at its end while another begins there.
    std::vector<char> used(m_open.size(), 0);
    std::vector<std::vector<Vec2>> left;
    for (std::size_t k = 0; k < m_open.size(); ++k) {
      if (used[k]) continue;
      used[k] = 1;
      std::vector<Vec2> path = m_open[k];
      for (bool grown = true; grown && !meets(path.front(), path.back());) {
        grown = false;
        for (std::size_t j = 0; j < m_open.size() && !grown; ++j)
          if (!used[j]) used[j] = grown = grow(path, m_open[j]);
      }
      if (path.size() > 3 && meets(path.front(), path.back())) {
        path.pop_back();
        m_closed.push_back(std::move(path));
      } else {
        left.push_back(std::move(path));
      }
    }
    m_open = std::move(left);
  }
  std::vector<std::vector<Vec2>> m_closed, m_open;

private:
  static bool meets(const Vec2& a, const Vec2& b) { return (a - b).norm() < kJoin_mm; }
  static bool grow(std::vector<Vec2>& path, const std::vector<Vec2>& more) {
    const auto append = [&](auto first, auto last) { path.insert(path.end(), first + 1, last); };
    if (meets(path.back(), more.front()))
      append(more.begin(), more.end());
    else if (meets(path.back(), more.back()))
      append(more.rbegin(), more.rend());
    else if (meets(path.front(), more.front()) || meets(path.front(), more.back())) {
      std::ranges::reverse(path);
      return grow(path, more);
    } else
      return false;
    return true;
  }
};

/// Without points that say nothing: doubled, or on the way between their neighbours.
Polygon tidied(const std::vector<Vec2>& points) {
  Polygon rim;
  for (const Vec2& p : points)
    if (rim.empty() || (p - rim.back()).norm() > kSameVertex_mm) rim.push_back(p);
  while (rim.size() > 1 && (rim.front() - rim.back()).norm() <= kSameVertex_mm)
    rim.pop_back();
  for (std::size_t k = 0; rim.size() > 3 && k < rim.size();) {
    const Vec2 &a = rim[(k + rim.size() - 1) % rim.size()], &b = rim[(k + 1) % rim.size()];
    if (distanceToSegment(rim[k], a, b) < kStraight_mm)
      rim.erase(rim.begin() + static_cast<std::ptrdiff_t>(k));
    else
      ++k;
  }
  if (rim.size() > 2 && signedArea_mm2(rim) < 0) std::ranges::reverse(rim);
  return rim;
}

struct Sorted {
  Chains cuts;
  std::vector<WorkLine> folds; ///< and cuts inside
};

Sorted sorted(const Drawing& drawing, const LineUses& uses) {
  Sorted made;
  for (const DrawnLine& line : drawing.lines) {
    const auto told = uses.find(line.look);
    const LineUse use = line.use             ? *line.use
                        : told != uses.end() ? told->second
                                             : likelyUse(line.look);
    if (use == LineUse::Nothing) continue;
    if (use == LineUse::Cut) {
      if (line.inside)
        for (std::size_t k = 0; k + 1 < line.points.size(); ++k)
          made.folds.push_back({WorkLine::Kind::Cut, line.points[k], line.points[k + 1]});
      else
        made.cuts.add(line.points, line.closed);
      continue;
    }
    const auto kind = use == LineUse::Mountain ? WorkLine::Kind::Mountain : WorkLine::Kind::Valley;
    std::vector<Vec2> points = line.points;
    if (line.closed) points.push_back(points.front());
    for (std::size_t k = 0; k + 1 < points.size(); ++k)
      made.folds.push_back({kind, points[k], points[k + 1], {}, line.folded_deg});
  }
  made.cuts.join();
  return made;
}

struct Loops {
  std::vector<Polygon> outer;                         ///< the largest first
  std::vector<std::pair<std::size_t, Polygon>> inner; ///< with the one in which they lie
};

Loops loopsOf(const std::vector<std::vector<Vec2>>& closed) {
  std::vector<Polygon> all;
  for (const auto& points : closed) {
    Polygon rim = tidied(points);
    if (rim.size() > 2 && std::abs(signedArea_mm2(rim)) > kLeastArea_mm2 && isSimple(rim))
      all.push_back(std::move(rim));
  }
  std::ranges::stable_sort(all, std::greater(), [](const Polygon& p) { return signedArea_mm2(p); });
  Loops loops;
  for (Polygon& rim : all) {
    const Vec2 inside = centroidOf(convexParts(rim).front());
    const auto host = std::ranges::find_if(
        loops.outer, [&](const Polygon& outer) { return encloses(outer, inside); });
    if (host == loops.outer.end())
      loops.outer.push_back(std::move(rim));
    else
      loops.inner.push_back({static_cast<std::size_t>(host - loops.outer.begin()), std::move(rim)});
  }
  return loops;
}

/// A line as it goes on a sheet: its ends on the rim when they are drawn a little short or long.
std::optional<WorkLine> fitted(const Polygon& outline, WorkLine line) {
  if ((line.to - line.from).norm() < kLeastLine_mm) return std::nullopt;
  if (!contains(outline, 0.5 * (line.from + line.to), kJoin_mm)) return std::nullopt;
  for (Vec2* end : {&line.from, &line.to}) {
    const Vec2& other = end == &line.from ? line.to : line.from;
    if (distanceToOutline(outline, *end) < kJoin_mm) *end = endOnRim(outline, *end, other);
    if (!contains(outline, *end, kTouch_mm)) return std::nullopt;
  }
  // What runs along the rim is the rim.
  if (distanceToOutline(outline, 0.5 * (line.from + line.to)) < kJoin_mm) return std::nullopt;
  return line;
}

Error noOutline(const Drawing& drawing) {
  return Error{{"drawing.no-outline", drawing.lines.size()}, ""};
}

} // namespace

LineUse likelyUse(const LineLook& look) {
  const std::string layer = lower(look.layer);
  const auto has = [&](std::initializer_list<std::string_view> words) {
    return std::ranges::any_of(
        words, [&](std::string_view w) { return layer.find(w) != std::string::npos; });
  };
  if (has({"mountain"})) return LineUse::Mountain;
  if (has({"valley"})) return LineUse::Valley;
  if (has({"mark", "label", "glue", "text", "note", "dimension"})) return LineUse::Nothing;
  if (has({"cut", "outline"})) return LineUse::Cut;
  if (has({"fold", "score", "crease"}) || !look.dash.empty()) return LineUse::Valley;
  return LineUse::Cut;
}

LineUses likelyUses(const Drawing& drawing) {
  LineUses uses;
  for (const DrawnLine& line : drawing.lines)
    if (!line.use) uses[line.look] = likelyUse(line.look);
  return uses;
}

Result<std::vector<PieceWork>> piecesOf(const Drawing& drawing, const LineUses& uses) {
  Sorted parts = sorted(drawing, uses);
  if (parts.cuts.m_closed.size() + parts.cuts.m_open.size() > kMostPaths)
    return Error{{"drawing.large", kMostPaths}, ""};
  Loops loops = loopsOf(parts.cuts.m_closed);
  if (loops.outer.empty()) return noOutline(drawing);
  if (loops.outer.size() > kMostPieces) return Error{{"drawing.pieces", kMostPieces}, ""};
  std::vector<PieceWork> pieces(loops.outer.size());
  for (std::size_t k = 0; k < pieces.size(); ++k)
    pieces[k].outline = std::move(loops.outer[k]);
  for (auto& [host, rim] : loops.inner)
    pieces[host].windows.push_back(std::move(rim));
  std::vector<WorkLine> lines = std::move(parts.folds);
  for (const auto& path : parts.cuts.m_open)
    for (std::size_t k = 0; k + 1 < path.size(); ++k)
      lines.push_back({WorkLine::Kind::Cut, path[k], path[k + 1]});
  for (const WorkLine& line : lines)
    for (PieceWork& piece : pieces)
      if (auto fits = fitted(piece.outline, line)) {
        piece.lines.push_back(std::move(*fits));
        break;
      }
  for (std::size_t k = 0; k < pieces.size(); ++k)
    if (auto valid = validate(pieces[k], ""); !valid)
      return Error{{"drawing.piece", k + 1, valid.error().message}, ""};
  return pieces;
}

Result<std::vector<Polygon>> outlinesOf(const Drawing& drawing, const LineUses& uses) {
  Loops loops = loopsOf(sorted(drawing, uses).cuts.m_closed);
  if (loops.outer.empty()) return noOutline(drawing);
  return std::move(loops.outer);
}

Result<Drawing> drawingFromFile(const std::string& path) {
  const auto ends = [&](std::string_view ending) { return lower(path).ends_with(ending); };
  const bool known = ends(".svg") || ends(".dxf") || ends(".fold");
  if (!known) return Error{"drawing.unknown", path};
  auto text = readFile(path);
  if (!text) return text.error();
  auto made = ends(".svg")   ? drawingFromSvg(*text)
              : ends(".dxf") ? drawingFromDxf(*text)
                             : drawingFromFold(*text);
  if (made) return made;
  Error error = made.error();
  error.place = error.place.empty() ? path : path + ", " + error.place;
  return error;
}

Result<std::vector<Region>> areasOf(const Drawing& drawing, const LineUses& uses) {
  const auto pieces = piecesOf(drawing, uses);
  if (!pieces) return pieces.error();
  Box2 box;
  for (const PieceWork& piece : *pieces)
    box.add(boundsOf(piece.outline));
  const auto about = [&](Polygon ring, bool counterClockwise) {
    for (Vec2& corner : ring)
      corner -= box.centre();
    if ((signedArea_mm2(ring) > 0) != counterClockwise) std::ranges::reverse(ring);
    return ring;
  };
  std::vector<Region> areas;
  for (const PieceWork& piece : *pieces) {
    Region area(about(piece.outline, true));
    for (const Polygon& window : piece.windows)
      area.holes.push_back(about(window, false));
    areas.push_back(std::move(area));
  }
  return areas;
}

} // namespace hinge
