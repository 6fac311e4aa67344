// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/sheet_edits.h"
#include "core/units/length.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kSame_mm = 1e-9;

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
    for (const double x : {low.x(), high.x()})
      endAt(x, nearest(x)->kind, made.lines);
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

  /// The score in which the section ends, but where the sheet is scored already: there the section
  /// folds in the score that it finds, the way that one is marked.
  void endAt(double x, WorkLine::Kind kind, std::vector<WorkLine>& out) const {
    std::vector<std::pair<double, double>> scored;
    for (const WorkLine& line : m_work.lines) {
      if (line.kind == WorkLine::Kind::Cut) continue;
      const auto [low, high] = rising(line);
      if (std::max(std::abs(low.x() - x), std::abs(high.x() - x)) <= kTouch_mm)
        scored.push_back({low.y(), high.y()});
    }
    std::ranges::sort(scored);
    double from = m_band.low.y();
    const auto scoreTo = [&](double y) {
      if (y > from + kTouch_mm) out.push_back({kind, {x, from}, {x, y}});
    };
    for (const auto& [low, high] : scored) {
      scoreTo(std::min(low, m_band.high.y()));
      from = std::max(from, high);
    }
    scoreTo(m_band.high.y());
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

} // namespace hinge
