// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/packing.h"
#include <algorithm>
#include <cmath>
#include <map>
#include <polyclipping/clipper.hpp>

namespace hinge {
namespace {

using ClipperLib::IntPoint;
using ClipperLib::Path;
using ClipperLib::Paths;

/// Of the integers in which nesting is done (mm).
constexpr double kUnit_mm = 1e-3;
/// Outlines are simplified to the outside by at most this before they are nested.
constexpr double kSimplified_mm = 0.25;
/// Where that leaves too many parts, by up to so much.
constexpr double kCoarsest_mm = 4;

IntPoint toUnits(const Vec2& p) {
  return IntPoint(std::llround(p.x() / kUnit_mm), std::llround(p.y() / kUnit_mm));
}

/// Marks the corners between two that have to stay, so that no corner left out is farther than
/// `within_mm` from the line of those beside it.
void keepBetween(const Polygon& ring, std::size_t from, std::size_t to, double within_mm,
                 std::vector<char>& kept) {
  double farthest = within_mm;
  std::size_t at = from;
  for (std::size_t k = from + 1; k < to; ++k)
    if (const double off = distanceToSegment(ring[k], ring[from], ring[to % ring.size()]);
        off > farthest)
      farthest = off, at = k;
  if (at == from) return;
  kept[at] = 1;
  keepBetween(ring, from, at, within_mm, kept);
  keepBetween(ring, at, to, within_mm, kept);
}

/// The ring with fewer corners, nowhere farther from itself than `within_mm`.
Polygon thinned(const Polygon& ring, double within_mm) {
  if (ring.size() < 5) return ring;
  std::vector<char> kept(ring.size(), 0);
  const std::size_t half = ring.size() / 2;
  kept[0] = kept[half] = 1;
  keepBetween(ring, 0, half, within_mm, kept);
  keepBetween(ring, half, ring.size(), within_mm, kept);
  Polygon out;
  for (std::size_t k = 0; k < ring.size(); ++k)
    if (kept[k]) out.push_back(ring[k]);
  return out;
}

/// An outline as it is nested: grown by half the gap, with fewer corners, in convex parts.
struct Shape {
  std::vector<Path> parts; ///< convex, counter-clockwise
  Path turnedRound(const Path& part) const {
    Path out;
    for (const IntPoint& p : part)
      out.push_back(IntPoint(-p.X, -p.Y));
    return out;
  }
  IntPoint low, high;
};

/// The outline grown and simplified to the outside by so much, in convex parts; openings in which
/// nothing worth cutting has room are filled.
std::vector<Polygon> convexOutline(const CutPart& part, double gap_mm, double simplified_mm) {
  constexpr double kLeastOpening_mm = 25;
  const double grow = 0.5 * gap_mm + simplified_mm;
  std::vector<Polygon> parts;
  const std::vector<Region> grown =
      grow > 0 ? offset(part.outline, grow) : std::vector<Region>{part.outline};
  for (Region region : grown) {
    std::erase_if(region.holes, [](const Polygon& hole) {
      return boundsOf(Region(Polygon(hole.rbegin(), hole.rend()))).size().minCoeff() <
             kLeastOpening_mm;
    });
    if (simplified_mm > 0) {
      region.rim = thinned(region.rim, simplified_mm);
      for (Polygon& hole : region.holes)
        hole = thinned(hole, simplified_mm);
      std::erase_if(region.holes, [](const Polygon& hole) { return hole.size() < 3; });
    }
    for (Polygon& convex : convexParts(region))
      parts.push_back(std::move(convex));
  }
  return parts;
}

/// No-fit regions cost the product of both numbers of parts: an outline with more parts than this
/// is simplified further, at last to its hull.
constexpr std::size_t kMostConvexParts = 9;

Shape shapeOf(const CutPart& part, int quarters, double gap_mm) {
  const bool simple = part.outline.rim.size() <= 12;
  double simplified = simple ? 0 : kSimplified_mm;
  std::vector<Polygon> outline = convexOutline(part, gap_mm, simplified);
  for (; outline.size() > kMostConvexParts && simplified < kCoarsest_mm;
       outline = convexOutline(part, gap_mm, simplified))
    simplified = simplified > 0 ? 2 * simplified : kSimplified_mm;
  if (outline.size() > kMostConvexParts || outline.empty()) {
    const Region hull(convexHull(part.outline.rim));
    outline = {gap_mm > 0 ? offset(hull, 0.5 * gap_mm).front().rim : hull.rim};
  }
  Shape shape;
  const PartPlace turn{0, quarters, Vec2::Zero(), false};
  bool first = true;
  for (const Polygon& convex : outline) {
    Path path;
    for (const Vec2& p : convex)
      path.push_back(toUnits(turn.onSheet(p)));
    for (const IntPoint& p : path) {
      shape.low = first ? p : IntPoint(std::min(shape.low.X, p.X), std::min(shape.low.Y, p.Y));
      shape.high = first ? p : IntPoint(std::max(shape.high.X, p.X), std::max(shape.high.Y, p.Y));
      first = false;
    }
    shape.parts.push_back(std::move(path));
  }
  return shape;
}

class Nest {
public:
  Nest(const std::vector<CutPart>& parts, std::vector<SheetSupply> supply,
       const LayoutOptions& options, std::stop_token stop)
      : m_parts(parts), m_supply(std::move(supply)), m_options(options), m_stop(stop) {}

  Packed run(std::vector<std::size_t> which, const std::function<void()>& placed) {
    std::ranges::stable_sort(which, std::ranges::greater(), [&](std::size_t part) {
      const Vec2 size = m_parts[part].size();
      return size.x() * size.y();
    });
    keepPinned(which, placed);
    for (std::size_t part : which) {
      if (m_stop.stop_requested() || !put(part)) m_out.left.push_back(part);
      if (placed) placed();
    }
    for (std::size_t s = 0; s < m_out.sheets.size(); ++s)
      listOffcuts(s);
    return std::move(m_out);
  }

private:
  struct Forbidden {
    std::size_t done = 0; ///< of the parts on the sheet
    Paths region;
  };
  struct Open {
    std::vector<std::pair<std::size_t, IntPoint>> laid; ///< shape and where
    std::map<std::size_t, Forbidden> forbidden;         ///< by the shape that is to be laid
    double free_mm2 = 0;
  };
  struct Spot {
    IntPoint at;
    int quarters = 0;
    std::size_t shape = 0;
    double cost = 1e300;
  };

  /// Sheets with what was put on them by hand come first; those parts are taken out of `which`.
  void keepPinned(std::vector<std::size_t>& which, const std::function<void()>& placed) {
    std::map<std::size_t, std::size_t> sheetOf;
    for (const PinnedPart& pinned : m_options.pinned) {
      const auto at = std::ranges::find(which, pinned.place.part);
      if (at == which.end()) continue;
      const auto supply = std::ranges::find_if(m_supply, [&](const SheetSupply& one) {
        return one.width_mm == pinned.width_mm && one.height_mm == pinned.height_mm;
      });
      if (!sheetOf.contains(pinned.sheet)) {
        if (supply == m_supply.end() || supply->count <= 0) continue;
        --supply->count;
        sheetOf[pinned.sheet] = m_out.sheets.size();
        m_out.sheets.push_back({m_parts[*at].paper, pinned.width_mm, pinned.height_mm, {}, {}});
        m_open.push_back({{}, {}, pinned.width_mm * pinned.height_mm});
      }
      const std::size_t sheet = sheetOf[pinned.sheet], part = *at;
      Spot spot;
      spot.at = toUnits(pinned.place.offset), spot.quarters = pinned.place.quarters;
      spot.shape = shapeFor(part, spot.quarters);
      lay(sheet, part, spot, area_mm2(m_parts[part].outline));
      m_out.sheets[sheet].places.back().pinned = true;
      which.erase(at);
      if (placed) placed();
    }
  }

  /// Parts of one outline are one shape.
  std::size_t shapeFor(std::size_t part, int quarters) {
    const CutPart& of = m_parts[part];
    for (std::size_t k = 0; k < m_known.size(); ++k)
      if (m_known[k].second == quarters && m_parts[m_known[k].first].outline == of.outline)
        return k;
    m_known.push_back({part, quarters});
    m_shapes.push_back(shapeOf(of, quarters, m_options.gap_mm));
    return m_shapes.size() - 1;
  }

  /// Where the origin of `moving` may not be when that of `still` is in the origin.
  const Paths& noFit(std::size_t still, std::size_t moving) {
    const auto [at, isNew] = m_noFit.emplace(std::pair(still, moving), Paths());
    if (!isNew) return at->second;
    ClipperLib::Clipper all;
    for (const Path& a : m_shapes[still].parts)
      for (const Path& b : m_shapes[moving].parts) {
        Paths sum;
        ClipperLib::MinkowskiSum(m_shapes[moving].turnedRound(b), a, sum, true);
        // Where one lies within the other their borders do not meet: that is a hole in the sum of
        // the borders, and no place to be.
        for (const Path& ring : sum)
          if (ClipperLib::Orientation(ring)) all.AddPath(ring, ClipperLib::ptSubject, true);
      }
    all.Execute(ClipperLib::ctUnion, at->second, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
    return at->second;
  }

  /// Brings what is forbidden to a shape on a sheet up to date.
  const Paths& forbiddenOn(Open& sheet, std::size_t shape) {
    Forbidden& known = sheet.forbidden[shape];
    if (known.done == sheet.laid.size()) return known.region;
    ClipperLib::Clipper all;
    all.AddPaths(known.region, ClipperLib::ptSubject, true);
    for (; known.done < sheet.laid.size(); ++known.done) {
      const auto& [still, at] = sheet.laid[known.done];
      Paths moved = noFit(still, shape);
      for (Path& path : moved)
        for (IntPoint& p : path)
          p.X += at.X, p.Y += at.Y;
      all.AddPaths(moved, ClipperLib::ptSubject, true);
    }
    Paths region;
    all.Execute(ClipperLib::ctUnion, region, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
    known.region = std::move(region);
    return known.region;
  }

  /// The rectangle in which a shape's origin may lie; nothing when the sheet is too small.
  std::optional<std::pair<IntPoint, IntPoint>> roomFor(const LaidSheet& sheet,
                                                       const Shape& shape) const {
    // The gap is kept between parts, not to the margin.
    const double inset = m_options.margin_mm - 0.5 * m_options.gap_mm;
    const IntPoint low = toUnits(Vec2(inset, inset)),
                   high = toUnits(Vec2(sheet.width_mm - inset, sheet.height_mm - inset));
    const IntPoint least(low.X - shape.low.X, low.Y - shape.low.Y),
        most(high.X - shape.high.X, high.Y - shape.high.Y);
    constexpr long kRounding = 2;
    if (most.X < least.X - kRounding || most.Y < least.Y - kRounding) return std::nullopt;
    return std::pair(least, IntPoint(std::max(most.X, least.X), std::max(most.Y, least.Y)));
  }

  std::optional<Spot> bestOn(std::size_t s, std::size_t part) {
    Spot best;
    for (int quarters = 0; quarters < 4; ++quarters) {
      if (!(m_parts[part].turns & (1u << quarters))) continue;
      const std::size_t shape = shapeFor(part, quarters);
      const auto room = roomFor(m_out.sheets[s], m_shapes[shape]);
      if (!room) continue;
      look(s, shape, quarters, *room, best);
    }
    if (best.cost > 1e299) return std::nullopt;
    return best;
  }

  void look(std::size_t s, std::size_t shape, int quarters,
            const std::pair<IntPoint, IntPoint>& room, Spot& best) {
    // A room that is a line or a point has no area to cut from: one unit more on each side.
    const auto& [low, high] = room;
    const Path whole{IntPoint(low.X - 1, low.Y - 1), IntPoint(high.X + 1, low.Y - 1),
                     IntPoint(high.X + 1, high.Y + 1), IntPoint(low.X - 1, high.Y + 1)};
    ClipperLib::Clipper cutting;
    cutting.AddPath(whole, ClipperLib::ptSubject, true);
    cutting.AddPaths(forbiddenOn(m_open[s], shape), ClipperLib::ptClip, true);
    Paths left;
    cutting.Execute(ClipperLib::ctDifference, left, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
    for (const Path& ring : left)
      for (const IntPoint& p : ring) {
        const IntPoint at(std::clamp(p.X, low.X, high.X), std::clamp(p.Y, low.Y, high.Y));
        const double top = static_cast<double>(at.Y + m_shapes[shape].high.Y),
                     right = static_cast<double>(at.X + m_shapes[shape].high.X);
        const double cost = top + 1e-4 * right;
        if (cost < best.cost) best = {at, quarters, shape, cost};
      }
  }

  bool put(std::size_t part) {
    const double area = area_mm2(m_parts[part].outline);
    for (std::size_t s = 0; s < m_out.sheets.size(); ++s) {
      if (m_open[s].free_mm2 < area) continue;
      if (const auto spot = bestOn(s, part)) return lay(s, part, *spot, area), true;
    }
    for (SheetSupply& supply : m_supply) {
      if (supply.count <= 0) continue;
      m_out.sheets.push_back({m_parts[part].paper, supply.width_mm, supply.height_mm, {}, {}});
      m_open.push_back({{}, {}, supply.width_mm * supply.height_mm});
      if (const auto spot = bestOn(m_out.sheets.size() - 1, part)) {
        --supply.count;
        return lay(m_out.sheets.size() - 1, part, *spot, area), true;
      }
      m_out.sheets.pop_back(), m_open.pop_back();
    }
    return false;
  }

  void lay(std::size_t s, std::size_t part, const Spot& spot, double area) {
    m_open[s].laid.push_back({spot.shape, spot.at});
    m_open[s].free_mm2 -= area;
    m_out.sheets[s].places.push_back(
        {part, spot.quarters,
         Vec2(static_cast<double>(spot.at.X), static_cast<double>(spot.at.Y)) * kUnit_mm, false});
  }

  /// The empty stretch over the highest part, and the one to the right of all.
  void listOffcuts(std::size_t s) {
    LaidSheet& sheet = m_out.sheets[s];
    Box2 used;
    for (const PartPlace& place : sheet.places) {
      const Box2 box = boxOnSheet(m_parts[place.part], place);
      used.add(box.low), used.add(box.high);
    }
    const double gap = m_options.gap_mm;
    Box2 above, beside;
    above.add(Vec2(0, used.high.y() + gap)), above.add(Vec2(sheet.width_mm, sheet.height_mm));
    beside.add(Vec2(used.high.x() + gap, 0));
    beside.add(Vec2(sheet.width_mm, used.high.y() + gap));
    for (const Box2& box : {above, beside})
      if (box.size().minCoeff() >= m_options.offcut_mm && box.high.x() <= sheet.width_mm + 1e-9 &&
          box.high.y() <= sheet.height_mm + 1e-9 && box.low.y() < sheet.height_mm &&
          box.low.x() < sheet.width_mm)
        sheet.offcuts.push_back(box);
  }

  const std::vector<CutPart>& m_parts;
  std::vector<SheetSupply> m_supply;
  const LayoutOptions& m_options;
  std::stop_token m_stop;
  std::vector<std::pair<std::size_t, int>> m_known; ///< part and quarters of each shape
  std::vector<Shape> m_shapes;
  std::map<std::pair<std::size_t, std::size_t>, Paths> m_noFit;
  std::vector<Open> m_open;
  Packed m_out;
};

} // namespace

Packed nestForMachine(const std::vector<CutPart>& parts, const std::vector<std::size_t>& which,
                      std::vector<SheetSupply> supply, const LayoutOptions& options,
                      std::stop_token stop, const std::function<void()>& placed) {
  return Nest(parts, std::move(supply), options, stop).run(which, placed);
}

} // namespace hinge
