// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/outline_edits.h"
#include "core/units/length.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <iterator>

namespace hinge {
namespace {

const double kStraightSine = std::sin(radians(1)); ///< a corner that turns less is none
constexpr double kLeastTabEdge_mm = 1;

/// The points in place of one corner.
Polygon replaced(const Polygon& outline, std::size_t corner, const std::vector<Vec2>& by) {
  Polygon made = outline;
  const auto at = made.erase(made.begin() + static_cast<std::ptrdiff_t>(corner));
  made.insert(at, by.begin(), by.end());
  return made;
}

} // namespace

std::optional<std::size_t> cornerAt(const PieceWork& work, const Vec2& at, double reach_mm) {
  std::optional<std::size_t> best;
  double least = reach_mm;
  for (std::size_t k = 0; k < work.outline.size(); ++k)
    if (const double far = (work.outline[k] - at).norm(); far < least) least = far, best = k;
  return best;
}

std::optional<std::size_t> edgeAt(const PieceWork& work, const Vec2& at, double reach_mm) {
  std::optional<std::size_t> best;
  double least = reach_mm;
  const auto edges = edgesOf(work.outline);
  for (std::size_t k = 0; k < edges.size(); ++k)
    if (const double far = distanceToSegment(at, edges[k].first, edges[k].second); far < least)
      least = far, best = k;
  return best;
}

Result<PieceWork> withOutline(const PieceWork& work, Polygon outline) {
  PieceWork made = work;
  made.outline = std::move(outline);
  const bool sameCorners = made.outline.size() == work.outline.size();
  const auto follow = [&](Vec2& end, const Vec2& was, const Vec2& other) {
    for (std::size_t k = 0; sameCorners && k < work.outline.size(); ++k)
      if ((was - work.outline[k]).norm() < kTouch_mm) return void(end = made.outline[k]);
    if (distanceToOutline(work.outline, was) < kTouch_mm) end = endOnRim(made.outline, was, other);
  };
  for (std::size_t k = 0; k < made.lines.size(); ++k) {
    follow(made.lines[k].from, work.lines[k].from, work.lines[k].to);
    follow(made.lines[k].to, work.lines[k].to, work.lines[k].from);
  }
  if (auto valid = validate(made, ""); !valid) return valid.error();
  return made;
}

Result<PieceWork> withCornerMoved(const PieceWork& work, std::size_t corner, const Vec2& to) {
  Polygon outline = work.outline;
  outline[corner] = to;
  return withOutline(work, std::move(outline));
}

Result<PieceWork> withEdgeMoved(const PieceWork& work, std::size_t edge, double out_mm) {
  return withOutline(work, withEdgeOut(work.outline, edge, out_mm));
}

Result<PieceWork> withCornerAdded(const PieceWork& work, std::size_t edge, const Vec2& at) {
  const std::size_t next = (edge + 1) % work.outline.size();
  const Vec2 from = work.outline[edge], along = work.outline[next] - from;
  const double share = std::clamp(along.dot(at - from) / along.squaredNorm(), 0.0, 1.0);
  Polygon outline = work.outline;
  outline.insert(outline.begin() + static_cast<std::ptrdiff_t>(edge) + 1, from + share * along);
  return withOutline(work, std::move(outline));
}

Result<PieceWork> withCornerRemoved(const PieceWork& work, std::size_t corner) {
  return withOutline(work, replaced(work.outline, corner, {}));
}

Result<PieceWork> withCornerCut(const PieceWork& work, std::size_t corner, CornerCut how,
                                double size_mm) {
  const auto points = how == CornerCut::Round ? roundedCorner(work.outline, corner, size_mm)
                                              : snippedCorner(work.outline, corner, size_mm);
  if (!points) return Error{{"sheet.radius", Millimetres{size_mm}}, ""};
  return withOutline(work, replaced(work.outline, corner, *points));
}

Result<PieceWork> withRoundCorners(const PieceWork& work, double radius_mm) {
  Polygon in = work.outline, out;
  if (signedArea_mm2(in) < 0) std::ranges::reverse(in);
  const std::size_t n = in.size();
  for (std::size_t k = 0; k < n; ++k) {
    const Vec2 back = in[k] - in[(k + n - 1) % n], on = in[(k + 1) % n] - in[k];
    if (cross2(back.normalized(), on.normalized()) < kStraightSine) {
      out.push_back(in[k]);
      continue;
    }
    const auto arc = roundedCorner(in, k, radius_mm);
    if (!arc) return Error{{"sheet.radius", Millimetres{radius_mm}}, ""};
    out.insert(out.end(), arc->begin(), arc->end());
  }
  PieceWork made = work;
  made.outline = std::move(out);
  if (auto valid = validate(made, ""); !valid) return valid.error();
  return made;
}

Result<PieceWork> withTab(const PieceWork& work, std::size_t edge, double depth_mm,
                          WorkLine::Kind kind, double bevel_deg) {
  const Edge base = edgesOf(work.outline)[edge];
  const Vec2 along = (base.second - base.first).normalized(), out = outwards(work.outline, edge);
  const double lean = depth_mm * std::tan(radians(bevel_deg));
  const double length = (base.second - base.first).norm();
  if (!(depth_mm > 0) || length - 2 * lean < kLeastTabEdge_mm) return Error{"sheet.tab-deep", ""};
  PieceWork made = work;
  const Vec2 corners[] = {base.first + depth_mm * out + lean * along,
                          base.second + depth_mm * out - lean * along};
  made.outline.insert(made.outline.begin() + static_cast<std::ptrdiff_t>(edge) + 1,
                      std::begin(corners), std::end(corners));
  made.lines.push_back({kind, base.first, base.second});
  if (auto valid = validate(made, ""); !valid) return valid.error();
  return made;
}

namespace {

/// What clipping moved by a hair back to where it was: on a coordinate of the paper, or of the cut.
class Exactly {
public:
  void add(const Polygon& polygon) {
    for (const Vec2& corner : polygon)
      for (int axis : {0, 1})
        m_known[axis].push_back(corner[axis]);
  }
  Vec2 operator()(Vec2 point) const {
    constexpr double kHair_mm = 4 * kRegionLattice_mm;
    for (int axis : {0, 1})
      for (const double known : m_known[axis])
        if (std::abs(point[axis] - known) < kHair_mm) {
          point[axis] = known;
          break;
        }
    return point;
  }

private:
  std::vector<double> m_known[2];
};

/// The stretches of a line that lie in the paper, not along its rim.
std::vector<WorkLine> within(const Polygon& rim, const WorkLine& line, const Exactly& exactly) {
  const Vec2 along = line.to - line.from;
  std::vector<double> ends{0, 1};
  for (const auto& [from, to] : edgesOf(rim)) {
    const Vec2 edge = to - from;
    const double cross = cross2(along, edge);
    if (std::abs(cross) < 1e-12) continue;
    const double t = cross2(Vec2(from - line.from), edge) / cross,
                 s = cross2(Vec2(from - line.from), along) / cross;
    if (t > 0 && t < 1 && s > -1e-9 && s < 1 + 1e-9) ends.push_back(t);
  }
  std::ranges::sort(ends);
  std::vector<std::pair<double, double>> stretches;
  for (std::size_t k = 0; k + 1 < ends.size(); ++k) {
    const Vec2 middle = line.from + 0.5 * (ends[k] + ends[k + 1]) * along;
    if ((ends[k + 1] - ends[k]) * along.norm() < kTouch_mm) continue;
    if (!contains(Region(rim), middle) || distanceToOutline(rim, middle) < kTouch_mm) continue;
    if (!stretches.empty() && stretches.back().second == ends[k])
      stretches.back().second = ends[k + 1];
    else
      stretches.push_back({ends[k], ends[k + 1]});
  }
  std::vector<WorkLine> lines;
  for (const auto& [from, to] : stretches) {
    lines.push_back(line);
    if (from > 0) lines.back().from = exactly(line.from + from * along);
    if (to < 1) lines.back().to = exactly(line.from + to * along);
  }
  return lines;
}

} // namespace

Result<PieceWork> withTrimmed(const PieceWork& work, SheetEdge side, double depth_mm,
                              double from_mm, double to_mm) {
  const Box2 box = boundsOf(work.outline);
  const int axis = side == SheetEdge::Left || side == SheetEdge::Right ? 0 : 1, other = 1 - axis;
  const bool low = side == SheetEdge::Left || side == SheetEdge::Bottom;
  constexpr double kBeyond_mm = 10;
  Vec2 least, most;
  least[axis] = low ? box.low[axis] - kBeyond_mm : box.high[axis] - depth_mm;
  most[axis] = low ? box.low[axis] + depth_mm : box.high[axis] + kBeyond_mm;
  least[other] = from_mm, most[other] = to_mm;
  const Polygon off = rectangle(least, most);
  Exactly exactly;
  exactly.add(off), exactly.add(work.outline);
  PieceWork made = work;
  made.windows.clear();
  std::vector<Region> taken{Region(off)};
  for (const Polygon& window : work.windows) {
    if (overlapArea_mm2(Region(window), Region(off)) < kRegionSpeck_mm2)
      made.windows.push_back(window);
    else
      taken.emplace_back(window), exactly.add(window);
  }
  const Region before(work.outline);
  const std::vector<Region> left = without(before, taken);
  if (left.size() != 1 || !left.front().holes.empty()) return Error{"sheet.trim-apart", ""};
  if (area_mm2(before) - area_mm2(left.front()) < 1e-3) return Error{"sheet.trim-nothing", ""};
  made.outline.clear(), made.lines.clear();
  for (const Vec2& corner : left.front().rim)
    made.outline.push_back(exactly(corner));
  for (const WorkLine& line : work.lines)
    std::ranges::copy(within(made.outline, line, exactly), std::back_inserter(made.lines));
  for (const PieceJoint& joint : work.joints)
    if (!contains(Region(made.outline), joint.at))
      return Error{{"sheet.trim-joint", Millimetres{joint.at.x()}, Millimetres{joint.at.y()}}, ""};
  if (auto valid = validate(made, ""); !valid) return valid.error();
  return made;
}

double widthAt_mm(const PieceWork& work, std::size_t edge) {
  const Vec2 out = outwards(work.outline, edge);
  double least = 1e300;
  for (const Vec2& p : work.outline)
    least = std::min(least, out.dot(p));
  return out.dot(work.outline[edge]) - least;
}

} // namespace hinge
