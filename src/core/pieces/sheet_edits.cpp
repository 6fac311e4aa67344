// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/sheet_edits.h"
#include "core/units/length.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kSame_mm = 1e-9, kArcOff_mm = 0.05;

Result<PieceWork> checked(PieceWork work) {
  if (auto valid = validate(work, ""); !valid) return valid.error();
  return work;
}

/// Where the outline meets the line on which coordinate `axis` is `value`: the other coordinates.
std::vector<double> meets(const PieceWork& work, int axis, double value) {
  std::vector<double> found;
  for (const auto& [a, b] : edgesOf(work.outline)) {
    const double p = a[axis], q = b[axis];
    if ((p > value) != (q > value))
      found.push_back(a[1 - axis] + (b[1 - axis] - a[1 - axis]) * (value - p) / (q - p));
  }
  return found;
}

/// A line from its lower to its upper end.
std::pair<Vec2, Vec2> rising(const WorkLine& line) {
  return line.from.y() <= line.to.y() ? std::pair{line.from, line.to}
                                      : std::pair{line.to, line.from};
}

Vec2 atHeight(const WorkLine& line, double y) {
  const auto [low, high] = rising(line);
  return low + (high - low) * ((y - low.y()) / (high.y() - low.y()));
}

WorkLine::Kind turned(WorkLine::Kind kind) {
  return kind == WorkLine::Kind::Mountain ? WorkLine::Kind::Valley : WorkLine::Kind::Mountain;
}

} // namespace

std::optional<Edge> acrossAt(const PieceWork& work, double x) {
  const auto ys = meets(work, 0, x);
  if (ys.size() < 2) return std::nullopt;
  return Edge{{x, std::ranges::min(ys)}, {x, std::ranges::max(ys)}};
}

std::optional<Edge> alongAt(const PieceWork& work, double y) {
  const auto xs = meets(work, 1, y);
  if (xs.size() < 2) return std::nullopt;
  return Edge{{std::ranges::min(xs), y}, {std::ranges::max(xs), y}};
}

std::optional<std::size_t> lineAt(const PieceWork& work, const Vec2& at, double reach_mm) {
  std::optional<std::size_t> best;
  double least = reach_mm;
  for (std::size_t k = 0; k < work.lines.size(); ++k)
    if (const double far = distanceToSegment(at, work.lines[k].from, work.lines[k].to);
        far <= least + kSame_mm)
      least = far, best = k;
  return best;
}

namespace {

/// Parts the scores that cross a band; what lies inside folds the other way.
class Reversing {
public:
  Reversing(const PieceWork& work, const Box2& band) : m_work(work), m_band(band) {}

  Result<PieceWork> run() {
    PieceWork made = m_work;
    made.lines.clear();
    for (const WorkLine& line : m_work.lines)
      part(line, made.lines);
    if (m_spanned.empty()) return Error{"sheet.reverse/nothing", ""};
    const auto nearest = [&](double x) {
      return std::ranges::min_element(
          m_spanned, {}, [&](const WorkLine& line) { return std::abs(middle(line).x() - x); });
    };
    const Vec2 &low = m_band.low, &high = m_band.high;
    made.lines.push_back({nearest(low.x())->kind, low, {low.x(), high.y()}});
    made.lines.push_back({nearest(high.x())->kind, {high.x(), low.y()}, high});
    made.lines.push_back({WorkLine::Kind::Cut, low, {high.x(), low.y()}});
    made.lines.push_back({WorkLine::Kind::Cut, {low.x(), high.y()}, high});
    return checked(std::move(made));
  }

private:
  static Vec2 middle(const WorkLine& line) { return 0.5 * (line.from + line.to); }

  bool spans(const WorkLine& line) const {
    if (line.kind == WorkLine::Kind::Cut) return false;
    const auto [low, high] = rising(line);
    if (low.y() > m_band.low.y() + kTouch_mm || high.y() < m_band.high.y() - kTouch_mm)
      return false;
    return std::ranges::all_of(std::array{m_band.low.y(), m_band.high.y()}, [&](double y) {
      const double x = atHeight(line, y).x();
      return x > m_band.low.x() + kTouch_mm && x < m_band.high.x() - kTouch_mm;
    });
  }

  void part(const WorkLine& line, std::vector<WorkLine>& out) {
    if (!spans(line)) return out.push_back(line);
    m_spanned.push_back(line);
    const auto [low, high] = rising(line);
    const Vec2 under = atHeight(line, m_band.low.y()), over = atHeight(line, m_band.high.y());
    const auto stretch = [&](const Vec2& from, const Vec2& to) {
      if ((to - from).norm() < kTouch_mm) return;
      WorkLine rest = line;
      rest.from = from, rest.to = to;
      out.push_back(std::move(rest));
    };
    stretch(low, under);
    // Its panels come in the other order: the same widths lead from end to end the other way round,
    // so that the section shuts flat with the leaves.
    const double ends = m_band.low.x() + m_band.high.x();
    out.push_back({turned(line.kind), {ends - under.x(), under.y()}, {ends - over.x(), over.y()}});
    stretch(over, high);
  }

  const PieceWork& m_work;
  Box2 m_band;
  std::vector<WorkLine> m_spanned;
};

} // namespace

Result<PieceWork> withReversed(const PieceWork& work, double left, double right, double low,
                               double high) {
  constexpr double kLeast_mm = 1;
  if (right < left + kLeast_mm || high < low + kLeast_mm) return Error{"sheet.reverse/order", ""};
  Box2 band;
  band.add(Vec2(left, low));
  band.add(Vec2(right, high));
  return Reversing(work, band).run();
}

namespace {

/// The outermost edge of the outline on one side of its bounding box, with the paper on its left.
std::optional<Edge> outermost(const PieceWork& work, SheetEdge side) {
  const Box2 box = boundsOf(work.outline);
  const int axis = side == SheetEdge::Left || side == SheetEdge::Right ? 0 : 1;
  const bool low = side == SheetEdge::Left || side == SheetEdge::Bottom;
  const double at = low ? box.low[axis] : box.high[axis];
  std::optional<Edge> longest;
  for (const Edge& edge : edgesOf(work.outline)) {
    if (std::abs(edge.first[axis] - at) > kTouch_mm || std::abs(edge.second[axis] - at) > kTouch_mm)
      continue;
    if (!longest || (edge.second - edge.first).norm() > (longest->second - longest->first).norm())
      longest = edge;
  }
  return longest;
}

} // namespace

Result<PieceWork> withTab(const PieceWork& work, SheetEdge edge, double depth_mm,
                          WorkLine::Kind kind, double bevel_deg) {
  PieceWork made = work;
  if (signedArea_mm2(made.outline) < 0) std::ranges::reverse(made.outline);
  const auto base = outermost(made, edge);
  if (!base) return Error{"sheet.no-edge", ""};
  const Vec2 along = (base->second - base->first).normalized();
  const Vec2 out(along.y(), -along.x()); // away from the paper, which lies on the left
  const double lean = depth_mm * std::tan(radians(bevel_deg));
  const double length = (base->second - base->first).norm();
  if (!(depth_mm > 0) || length - 2 * lean < 1) return Error{"sheet.tab-deep", ""};
  const auto at = std::ranges::find(made.outline, base->first) + 1;
  const Vec2 corners[] = {base->first + depth_mm * out + lean * along,
                          base->second + depth_mm * out - lean * along};
  made.outline.insert(at, std::begin(corners), std::end(corners));
  made.lines.push_back({kind, base->first, base->second});
  return checked(std::move(made));
}

Polygon rectangle(const Vec2& corner, const Vec2& other) {
  return {corner, {other.x(), corner.y()}, other, {corner.x(), other.y()}};
}

Polygon disc(const Vec2& middle, double across_mm) {
  const double r = 0.5 * across_mm;
  const auto n = std::max(kLeastDisc,
                          static_cast<std::size_t>(std::ceil(kPi / std::acos(1 - kArcOff_mm / r))));
  Polygon rim;
  for (std::size_t k = 0; k < n; ++k) {
    const double angle = 2 * kPi * static_cast<double>(k) / static_cast<double>(n);
    rim.push_back(middle + r * Vec2(std::cos(angle), std::sin(angle)));
  }
  return rim;
}

Result<PieceWork> withRoundCorners(const PieceWork& work, double radius_mm) {
  PieceWork made = work;
  Polygon in = work.outline;
  if (signedArea_mm2(in) < 0) std::ranges::reverse(in);
  if (!(radius_mm > kArcOff_mm)) return Error{{"sheet.radius", Millimetres{radius_mm}}, ""};
  Polygon out;
  const std::size_t n = in.size();
  for (std::size_t k = 0; k < n; ++k) {
    const Vec2 &before = in[(k + n - 1) % n], &here = in[k], &after = in[(k + 1) % n];
    const Vec2 u = (before - here).normalized(), v = (after - here).normalized();
    const double turn = std::acos(std::clamp(u.dot(v), -1.0, 1.0));
    if (cross2(here - before, after - here) <= 0 || turn > radians(179)) {
      out.push_back(here);
      continue;
    }
    const double back = radius_mm / std::tan(0.5 * turn);
    if (back > 0.5 * std::min((before - here).norm(), (after - here).norm()) + kSame_mm)
      return Error{{"sheet.radius", Millimetres{radius_mm}}, ""};
    const Vec2 middle = here + (radius_mm / std::sin(0.5 * turn)) * (u + v).normalized();
    const double sweep = kPi - turn;
    const int steps = std::max(
        2, static_cast<int>(std::ceil(sweep / (2 * std::acos(1 - kArcOff_mm / radius_mm)))));
    const Vec2 arm = here + back * u - middle;
    for (int s = 0; s <= steps; ++s) {
      const double a = sweep * s / steps;
      out.push_back(middle + Vec2(std::cos(a) * arm.x() - std::sin(a) * arm.y(),
                                  std::sin(a) * arm.x() + std::cos(a) * arm.y()));
    }
  }
  made.outline = std::move(out);
  return checked(std::move(made));
}

} // namespace hinge
