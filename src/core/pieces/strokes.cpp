// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/strokes.h"
#include "core/geom/rim.h"
#include "core/paper/starting_values.h"
#include "core/pieces/outline_edits.h"
#include "core/pieces/score_edits.h"
#include "core/pieces/sheet_edits.h"
#include "core/pieces/sheet_scanner.h"
#include "core/units/lattice.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace hinge {
namespace {

using What = Grip::What;

/// A drag whose other way is less than this share of it runs along an axis.
constexpr double kStraightShare = 0.1;
constexpr double kRingShare = 0.6, kRingWide_deg = 120; ///< until they are typed
constexpr double kLeastDrag_mm = 1;

bool onSomething(SnapTo to) {
  return to != SnapTo::Free && to != SnapTo::Lattice;
}

class Drawing {
public:
  Drawing(const SheetInWork& sheet, const Stroke& stroke, LengthUnit unit)
      : m_work(sheet.work), m_stroke(stroke), m_unit(unit), m_box(boundsOf(sheet.work.outline)) {}

  Drawn run() {
    if (m_work.outline.empty()) return {};
    m_drawn.at = snapped(m_stroke.to);
    switch (m_stroke.tool) {
    case SheetTool::Hold: hold(); break;
    case SheetTool::Score: score(); break;
    case SheetTool::Cut: cut(); break;
    case SheetTool::Opening:
    case SheetTool::Outline: closed(); break;
    case SheetTool::Reverse: reverse(); break;
    case SheetTool::Tab: tab(); break;
    case SheetTool::Trim: trim(); break;
    case SheetTool::Corner: corner(); break;
    }
    return std::move(m_drawn);
  }

private:
  // --- words and numbers ---------------------------------------------------------------------
  std::string length(double mm) const { return exactLength(mm, m_unit); }
  std::string point(const Vec2& p) const { return placeInWords(m_work, p, m_unit); }
  std::string fold() const { return std::string(workKey(m_stroke.fold)); }
  Snapped snapped(const Vec2& at) const { return snappedPoint(m_work, at, m_stroke.snapping); }
  bool dragged() const {
    return m_stroke.pressed && (m_stroke.to - m_stroke.from).norm() > kLeastDrag_mm;
  }
  std::optional<double> typed(std::size_t k) const {
    return k < m_stroke.typed.size() ? std::optional(m_stroke.typed[k]) : std::nullopt;
  }
  void say(std::string sentence) { m_drawn.sentence = std::move(sentence); }
  void measure(const Vec2& from, const Vec2& to, double value, bool typed = true,
               bool angle = false) {
    m_drawn.measures.push_back({from, to, value, angle, typed});
  }
  void ghost(const Polygon& polygon) {
    for (const Edge& edge : edgesOf(polygon))
      m_drawn.ghost.push_back(edge);
  }

  /// A place on an axis with its measure from the end that the maker reads from; what was typed
  /// replaces it.
  double place(int axis, double at, std::size_t k, double across) {
    const double low = m_box.low[axis], high = m_box.high[axis];
    const double end = m_stroke.fromFarEnd ? high : low, sign = m_stroke.fromFarEnd ? -1 : 1;
    if (const auto own = typed(k)) at = end + sign * *own;
    Vec2 a, b;
    a[axis] = end, b[axis] = at, a[1 - axis] = b[1 - axis] = across;
    measure(a, b, sign * (at - end));
    return at;
  }
  /// A point with both of its places.
  Vec2 pointPlaces(Vec2 at) {
    for (int axis : {0, 1})
      at[axis] = place(axis, at[axis], static_cast<std::size_t>(axis), at[1 - axis]);
    return at;
  }
  /// How far the nearest scores are on both sides; only told.
  void neighbours(int axis, double at, double across) {
    double before = m_box.low[axis], after = m_box.high[axis];
    for (std::size_t k = 0; k < m_work.lines.size(); ++k) {
      const WorkLine& line = m_work.lines[k];
      if (k == m_stroke.snapping.line || std::abs((line.to - line.from)[axis]) > kTouch_mm)
        continue;
      const double its = line.from[axis];
      if (its < at - kTouch_mm) before = std::max(before, its);
      if (its > at + kTouch_mm) after = std::min(after, its);
    }
    Vec2 a, b, c;
    a[axis] = before, b[axis] = at, c[axis] = after;
    a[1 - axis] = b[1 - axis] = c[1 - axis] = across;
    measure(a, b, at - before, false);
    measure(b, c, after - at, false);
  }

  // --- scores and cuts -----------------------------------------------------------------------
  void score() {
    if (!dragged()) return straightScore(0);
    const Snapped from = snapped(m_stroke.from);
    const Snapped& to = m_drawn.at;
    const Vec2 way = m_stroke.to - m_stroke.from;
    if (onSomething(from.to) && onSomething(to.to) && (to.at - from.at).norm() > kLeastDrag_mm)
      return scoreBetween(from.at, to.at);
    for (int axis : {0, 1})
      if (std::abs(way[axis]) < kStraightShare * std::abs(way[1 - axis]))
        return isShort(axis) ? partialScore(axis) : straightScore(axis);
    // A ruler laid through both points, or along what is slanted already.
    if (!onSomething(to.to))
      if (const auto parallel = snappedParallel(m_work, from.at, m_stroke.to, m_stroke.snapping))
        m_drawn.at = {*parallel, SnapTo::Parallel};
    const Vec2 middle = 0.5 * (from.at + to.at);
    const Vec2 first = endOnRim(m_work.outline, from.at, middle),
               last = endOnRim(m_work.outline, to.at, middle);
    if (contains(m_work.outline, from.at) && contains(m_work.outline, to.at) &&
        (to.at - from.at).norm() < kShortShare * (last - first).norm())
      return scoreBetween(from.at, to.at);
    scoreBetween(first, last);
  }

  /// A drag over less than this share of the paper scores no farther than it goes.
  static constexpr double kShortShare = 0.5;
  bool isShort(int axis) const {
    const double at = m_stroke.from[axis];
    const auto line = axis == 0 ? acrossAt(m_work, at) : alongAt(m_work, at);
    return line &&
           (m_stroke.to - m_stroke.from).norm() < kShortShare * (line->second - line->first).norm();
  }

  /// Upright (axis 0) or level, no longer than it was drawn.
  void partialScore(int axis) {
    const SnappedPlace snap = snappedPlace(m_work, axis, m_stroke.from[axis], m_stroke.snapping);
    const double at = place(axis, snap.at, 0, m_stroke.to[1 - axis]);
    const auto line = axis == 0 ? acrossAt(m_work, at) : alongAt(m_work, at);
    if (!line) return;
    const int along = 1 - axis;
    const double least = std::min(line->first[along], line->second[along]),
                 most = std::max(line->first[along], line->second[along]);
    const double from = std::clamp(snapped(m_stroke.from).at[along], least, most),
                 to = std::clamp(m_drawn.at.at[along], least, most);
    const double one = place(along, std::min(from, to), 1, at),
                 other = place(along, std::max(from, to), 2, at);
    const double low = std::min(one, other), high = std::max(one, other);
    if (high - low < kLeastDrag_mm) return;
    Edge drawn{Vec2::Constant(at), Vec2::Constant(at)};
    drawn.first[along] = low, drawn.second[along] = high;
    m_drawn.ghost.push_back(drawn);
    say(fmt::format("score {}{} {} from {} to {}", axis == 0 ? "" : "across ",
                    length(at - m_box.low[axis]), fold(), length(low - m_box.low[along]),
                    length(high - m_box.low[along])));
  }

  /// From edge to edge, upright (axis 0) or level (axis 1).
  void straightScore(int axis) {
    const double pointed = m_stroke.pressed ? m_stroke.from[axis] : m_stroke.to[axis];
    const SnappedPlace snap = snappedPlace(m_work, axis, pointed, m_stroke.snapping);
    m_drawn.at.to = snap.to;
    const double across = m_stroke.to[1 - axis];
    const double at = place(axis, snap.at, 0, across);
    neighbours(axis, at, across);
    const auto line = axis == 0 ? acrossAt(m_work, at) : alongAt(m_work, at);
    if (!line) return;
    m_drawn.ghost.push_back(*line);
    say(fmt::format("score {}{} {}", axis == 0 ? "" : "across ", length(at - m_box.low[axis]),
                    fold()));
  }

  void scoreBetween(const Vec2& from, Vec2 to) {
    if ((to - from).norm() < kLeastDrag_mm) return;
    const bool level = std::abs(to.y() - from.y()) < std::abs(to.x() - from.x());
    const int axis = level ? 1 : 0;
    // What is typed is where its end is, along the edge that it runs to.
    const double end = place(axis, to[axis], 0, to[1 - axis]);
    if (typed(0)) {
      const auto rim = level ? alongAt(m_work, end) : acrossAt(m_work, end);
      if (!rim) return;
      to = (rim->first - to).norm() < (rim->second - to).norm() ? rim->first : rim->second;
    }
    m_drawn.ghost.push_back({from, to});
    measure(from, to, (to - from).norm(), false);
    say(fmt::format("score {} to {} {}", point(from), point(to), fold()));
  }

  void cut() {
    const Vec2 from = snapped(m_stroke.from).at;
    if (!dragged()) return void(pointPlaces(m_drawn.at.at));
    if (!onSomething(m_drawn.at.to))
      if (const auto parallel = snappedParallel(m_work, from, m_stroke.to, m_stroke.snapping))
        m_drawn.at = {*parallel, SnapTo::Parallel};
    Vec2 to = m_drawn.at.at, way = to - from;
    // Typed is how long it is, and then by what angle it runs.
    const double length = typed(0).value_or(way.norm());
    const double angle = typed(1).value_or(degrees(std::atan2(way.y(), way.x())));
    if (!m_stroke.typed.empty())
      to = from + length * Vec2(std::cos(radians(angle)), std::sin(radians(angle)));
    measure(from, to, length);
    measure(from, to, angle, true, true);
    if (length < kLeastDrag_mm) return;
    m_drawn.ghost.push_back({from, to});
    say(fmt::format("cut {} to {}", point(from), point(to)));
  }

  // --- openings and outlines -----------------------------------------------------------------
  void closed() {
    switch (m_stroke.drawnAs()) {
    case DrawnShape::Rectangle:
    case DrawnShape::Oval:
    case DrawnShape::Named: return boxed();
    case DrawnShape::Disc: return round();
    case DrawnShape::Ring: return ring();
    case DrawnShape::Corners: return outlined();
    }
  }
  std::string verb() const { return m_stroke.tool == SheetTool::Outline ? "outline" : "opening"; }
  /// The middle of what the shape is centred on, if it is.
  std::optional<Vec2> centre() const {
    return m_stroke.centredOn ? middleOfWhat(m_work, *m_stroke.centredOn, kTouch_mm) : std::nullopt;
  }
  /// A middle as the sentence says it.
  std::string middleSaid(const Vec2& middle) const {
    return centre() ? "centred on " + point(*m_stroke.centredOn) : point(middle);
  }
  /// What fills the box of the drag, or twice the drag about the middle of something.
  void boxed() {
    if (!dragged()) return void(pointPlaces(m_drawn.at.at));
    const auto about = centre();
    Vec2 from = snapped(m_stroke.from).at, to = m_drawn.at.at;
    Vec2 size = (to - from).cwiseAbs();
    if (about)
      for (int axis : {0, 1})
        size[axis] = onLattice(2 * std::abs(m_stroke.to[axis] - (*about)[axis]), lattice());
    for (int axis : {0, 1}) {
      size[axis] = typed(static_cast<std::size_t>(axis)).value_or(size[axis]);
      to[axis] = from[axis] + (to[axis] < from[axis] ? -1 : 1) * size[axis];
    }
    const Vec2 middle = about ? *about : Vec2(0.5 * (from + to));
    if (about) from = middle - 0.5 * size, to = middle + 0.5 * size;
    measure(from, {to.x(), from.y()}, size.x());
    measure({to.x(), from.y()}, to, size.y());
    if (size.minCoeff() < kLeastDrag_mm) return;
    const Vec2 low = from.cwiseMin(to), high = from.cwiseMax(to);
    const DrawnShape as = m_stroke.drawnAs();
    if (as == DrawnShape::Rectangle && !about) {
      ghost(rectangle(low, high));
      return say(fmt::format("{} {} to {}", verb(), point(low), point(high)));
    }
    const auto shape = as == DrawnShape::Named       ? namedShape(m_stroke.shape, middle, size)
                       : as == DrawnShape::Rectangle ? std::optional(rectangle(low, high))
                                                     : std::optional(oval(middle, size));
    if (!shape) return;
    ghost(*shape);
    const std::string_view word = as == DrawnShape::Named       ? std::string_view(m_stroke.shape)
                                  : as == DrawnShape::Rectangle ? "rectangle"
                                                                : "oval";
    say(fmt::format("{} {} {} {} x {}", verb(), word, middleSaid(middle), length(size.x()),
                    length(size.y())));
  }
  void round() {
    if (!dragged()) return void(pointPlaces(m_drawn.at.at));
    const Vec2 middle = centre().value_or(snapped(m_stroke.from).at);
    const double across =
        typed(0).value_or(onLattice(2 * (m_stroke.to - middle).norm(), lattice()));
    const Vec2 way = (m_stroke.to - middle).normalized() * (0.5 * across);
    measure(middle - way, middle + way, across);
    if (across < kLeastDrag_mm) return;
    ghost(disc(middle, across));
    say(fmt::format("{} disc {} across {}", verb(), middleSaid(middle), length(across)));
  }
  void ring() {
    if (!dragged()) return void(pointPlaces(m_drawn.at.at));
    const Vec2 middle = centre().value_or(snapped(m_stroke.from).at), way = m_stroke.to - middle;
    const double outer = typed(0).value_or(onLattice(way.norm(), lattice()));
    const double inner = typed(1).value_or(onLattice(kRingShare * outer, lattice()));
    const double wide = typed(2).value_or(kRingWide_deg);
    constexpr double kTurn_deg = 15;
    const double towards = onLattice(degrees(std::atan2(way.y(), way.x())),
                                     m_stroke.snapping.lattice_mm > 0 ? kTurn_deg : 1);
    const Vec2 along(std::cos(radians(towards)), std::sin(radians(towards)));
    measure(middle, middle + outer * along, outer);
    measure(middle, middle + inner * along, inner);
    measure(middle + inner * along, middle + outer * along, wide, true, true);
    if (inner < kLeastDrag_mm || outer < inner + kLeastDrag_mm || wide < 1) return;
    ghost(ringSegment(middle, inner, outer, towards, wide));
    say(fmt::format("{} ring {} from {} to {} towards {} wide {}", verb(), middleSaid(middle),
                    length(inner), length(outer), exactNumber(towards), exactNumber(wide)));
  }
  void outlined() {
    const Vec2 at = pointPlaces(m_drawn.at.at);
    Polygon corners = m_stroke.corners;
    const bool closed = corners.size() > 2 && (corners.front() - at).norm() < kLeastDrag_mm;
    for (std::size_t k = 0; k + 1 < corners.size(); ++k)
      m_drawn.ghost.push_back({corners[k], corners[k + 1]});
    if (!corners.empty()) m_drawn.ghost.push_back({corners.back(), closed ? corners.front() : at});
    m_drawn.at.at = at;
    if (corners.size() < 3) return;
    std::string text = verb();
    for (const Vec2& p : corners)
      text += " " + point(p);
    say(std::move(text));
  }
  double lattice() const {
    return m_stroke.snapping.lattice_mm > 0 ? m_stroke.snapping.lattice_mm : 1e-3;
  }

  // --- reversed sections, tabs, corners ------------------------------------------------------
  void reverse() {
    if (!dragged()) return;
    const double left = snappedPlace(m_work, 0, std::min(m_stroke.from.x(), m_stroke.to.x()),
                                     m_stroke.snapping)
                            .at,
                 right = snappedPlace(m_work, 0, std::max(m_stroke.from.x(), m_stroke.to.x()),
                                      m_stroke.snapping)
                             .at;
    const auto level = [&](double y) {
      return m_box.low.y() + onLattice(y - m_box.low.y(), lattice());
    };
    const Vec2 low(typed(0) ? m_box.low.x() + *typed(0) : left,
                   level(std::min(m_stroke.from.y(), m_stroke.to.y())));
    const Vec2 high(typed(1) ? m_box.low.x() + *typed(1) : right,
                    typed(2) ? low.y() + *typed(2)
                             : level(std::max(m_stroke.from.y(), m_stroke.to.y())));
    measure({m_box.low.x(), low.y()}, low, low.x() - m_box.low.x());
    measure({m_box.low.x(), high.y()}, high, high.x() - m_box.low.x());
    measure({high.x(), low.y()}, high, high.y() - low.y());
    ghost(rectangle(low, high));
    say(fmt::format("reverse {} to {} between {} and {}", length(low.x() - m_box.low.x()),
                    length(high.x() - m_box.low.x()), length(low.y() - m_box.low.y()),
                    length(high.y() - m_box.low.y())));
  }

  void tab() {
    const Grip held =
        m_stroke.pressed ? m_stroke.grip : gripAt(m_work, m_stroke.to, m_stroke.snapping.reach_mm);
    if (held.what != What::Rim) return;
    const Edge edge = edgesOf(m_work.outline)[held.index];
    const Vec2 out = outwards(m_work.outline, held.index),
               middle = 0.5 * (edge.first + edge.second);
    const double pulled = dragged() ? onLattice(out.dot(m_stroke.to - middle), lattice()) : 0;
    const double depth =
        typed(0).value_or(pulled > kLeastDrag_mm ? pulled : starting::kTabDepth_mm);
    measure(middle, middle + depth * out, depth);
    const auto made = withTab(m_work, held.index, depth, m_stroke.fold, m_stroke.bevel_deg);
    if (!made) return;
    const auto& rim = made->outline;
    for (std::size_t k = 0; k < 3; ++k)
      m_drawn.ghost.push_back(
          {rim[(held.index + k) % rim.size()], rim[(held.index + k + 1) % rim.size()]});
    say(fmt::format("tab at {} {} {}{}", point(middle), length(depth), fold(),
                    m_stroke.bevel_deg == starting::kTabBevel_deg
                        ? ""
                        : " bevel " + exactNumber(m_stroke.bevel_deg)));
  }

  /// The place of a line that runs square to an axis, if one is near; else the lattice.
  double atScore(int axis, double at) const {
    for (const WorkLine& line : m_work.lines)
      if (std::abs((line.to - line.from)[axis]) < kTouch_mm &&
          std::abs(line.from[axis] - at) < m_stroke.snapping.reach_mm)
        return line.from[axis];
    return snappedPlace(m_work, axis, at, m_stroke.snapping).at;
  }

  /// From an edge inwards: all along that side. From a corner: along the side on which the drag
  /// runs on, as far as it goes, to a score if one is near.
  void trim() {
    const Grip& held = m_stroke.grip;
    const bool corner = held.what == What::Corner;
    if (!dragged() || (held.what != What::Rim && !corner)) return;
    const Vec2 way = m_stroke.to - m_stroke.from;
    const Vec2 inwards = -outwards(m_work.outline, held.index);
    const int along = corner ? (std::abs(way.x()) < std::abs(way.y()) ? 1 : 0)
                             : (std::abs(inwards.x()) > std::abs(inwards.y()) ? 1 : 0);
    const int deep = 1 - along;
    const Vec2 begin = corner ? m_work.outline[held.index] : m_stroke.from;
    const bool low = begin[deep] < m_box.centre()[deep];
    const SheetEdge side = deep == 0 ? (low ? SheetEdge::Left : SheetEdge::Right)
                                     : (low ? SheetEdge::Bottom : SheetEdge::Top);
    const double rim = low ? m_box.low[deep] : m_box.high[deep];
    const double depth = typed(0).value_or(
        onLattice(std::max(0.0, (low ? 1 : -1) * (m_stroke.to[deep] - rim)), lattice()));
    double from = m_box.low[along], to = m_box.high[along];
    if (corner) {
      const double end = atScore(along, m_stroke.to[along]);
      (begin[along] < m_box.centre()[along] ? to : from) =
          typed(1) ? m_box.low[along] + *typed(1) : end;
    }
    Vec2 a, b;
    a[along] = from, b[along] = to, a[deep] = rim, b[deep] = rim + (low ? depth : -depth);
    Vec2 edge = a;
    edge[deep] = b[deep];
    measure(a, edge, depth);
    if (corner) {
      const double end = begin[along] < m_box.centre()[along] ? to : from;
      measure(a, b, end - m_box.low[along]);
    }
    if (depth < kTouch_mm || to - from < kLeastDrag_mm) return;
    ghost(rectangle(a, b));
    say(fmt::format("trim {} {}{}", wordOf(side), length(depth),
                    corner ? fmt::format(" from {} to {}", length(from - m_box.low[along]),
                                         length(to - m_box.low[along]))
                           : ""));
  }

  void corner() {
    const Grip held =
        m_stroke.pressed ? m_stroke.grip : gripAt(m_work, m_stroke.to, m_stroke.snapping.reach_mm);
    if (held.what != What::Corner) return;
    const Vec2 at = m_work.outline[held.index];
    const double pulled = dragged() ? onLattice((m_stroke.to - at).norm(), lattice()) : 0;
    const double size = typed(0).value_or(pulled > 0 ? pulled : kCornerSize_mm);
    const bool snip = m_stroke.corner == CornerCut::Snip;
    const auto points = snip ? snippedCorner(m_work.outline, held.index, size)
                             : roundedCorner(m_work.outline, held.index, size);
    measure(at, m_stroke.to, size);
    if (!points) return;
    for (std::size_t k = 0; k + 1 < points->size(); ++k)
      m_drawn.ghost.push_back({(*points)[k], (*points)[k + 1]});
    say(fmt::format("{} {} by {}", snip ? "snip" : "round", point(at), length(size)));
  }

  // --- what is held --------------------------------------------------------------------------
  void hold() {
    if (!m_stroke.pressed || (!dragged() && m_stroke.typed.empty())) return;
    switch (m_stroke.grip.what) {
    case What::Corner: return holdCorner();
    case What::Rim: return holdEdge();
    case What::Line: return holdLine();
    case What::LineFrom: return holdEnd(false);
    case What::LineTo: return holdEnd(true);
    case What::Opening: return holdOpening();
    case What::OpeningCorner: return holdOpeningCorner();
    case What::Nothing:
    case What::Panel: return;
    }
  }
  void holdCorner() {
    const Vec2 was = m_work.outline[m_stroke.grip.index];
    const Vec2 to = pointPlaces(without(was));
    say(fmt::format("pull corner {} to {}", point(was), point(to)));
  }
  void holdEdge() {
    const std::size_t edge = m_stroke.grip.index;
    const Edge own = edgesOf(m_work.outline)[edge];
    const Vec2 out = outwards(m_work.outline, edge), middle = 0.5 * (own.first + own.second);
    const double before = widthAt_mm(m_work, edge);
    const double width =
        typed(0).value_or(onLattice(before + out.dot(m_stroke.to - m_stroke.from), lattice()));
    measure(middle - before * out, middle + (width - before) * out, width);
    say(fmt::format("pull edge {} to {}", point(middle), length(width)));
  }
  void holdLine() {
    const std::size_t k = m_stroke.grip.index;
    const WorkLine& line = m_work.lines[k];
    const Vec2 by = m_stroke.to - m_stroke.from;
    const auto marks = scoreMarks(m_work);
    const auto mark = std::ranges::find(marks, k, &ScoreMark::line);
    if (mark != marks.end()) {
      const double x = m_box.low.x() + mark->low_mm + by.x();
      const bool upright = std::abs(mark->low_mm - mark->high_mm) < kTouch_mm;
      const SnappedPlace snap =
          upright ? snappedPlace(m_work, 0, x, m_stroke.snapping)
                  : SnappedPlace{m_box.low.x() + onLattice(x - m_box.low.x(), lattice())};
      m_drawn.at.to = snap.to;
      const double at = place(0, snap.at, 0, m_stroke.to.y());
      neighbours(0, at, m_stroke.to.y());
      return say(fmt::format("move {} to {}{}", length(mark->low_mm), length(at - m_box.low.x()),
                             m_stroke.carry ? " carrying" : ""));
    }
    const bool level = std::abs(line.to.y() - line.from.y()) < kTouch_mm;
    const Vec2 named = nameOfLine(m_work, k);
    Vec2 to = named;
    if (level) {
      to.y() = place(1, snappedPlace(m_work, 1, line.from.y() + by.y(), m_stroke.snapping).at, 0,
                     m_stroke.to.x());
      neighbours(1, to.y(), m_stroke.to.x());
    } else
      to += Vec2(onLattice(by.x(), lattice()), onLattice(by.y(), lattice()));
    say(fmt::format("pull line {} to {}", point(named), point(to)));
  }
  void holdEnd(bool last) {
    const WorkLine& line = m_work.lines[m_stroke.grip.index];
    const Vec2 was = last ? line.to : line.from, other = last ? line.from : line.to;
    const Vec2 to = pointPlaces(without(was));
    measure(other, to, leaning_deg({line.kind, other, to}), false, true);
    say(fmt::format("pull end {} to {}", point(was), point(to)));
  }
  void holdOpening() {
    const Polygon& window = m_work.windows[m_stroke.grip.index];
    const Vec2 was = boundsOf(window).low;
    Vec2 at = was + m_stroke.to - m_stroke.from;
    for (int axis : {0, 1})
      at[axis] = m_box.low[axis] + onLattice(at[axis] - m_box.low[axis], lattice());
    at = pointPlaces(at);
    const Vec2 named = centroidOf(convexParts(window).front());
    say(fmt::format("pull opening {} to {}", point(named), point(named + at - was)));
  }
  void holdOpeningCorner() {
    const Vec2 was = m_work.windows[m_stroke.grip.index][m_stroke.grip.corner];
    const Vec2 to = pointPlaces(without(was));
    say(fmt::format("pull opening {} to {}", point(was), point(to)));
  }
  /// Where the pointer is, but not held back by the place that is being left.
  Vec2 without(const Vec2& was) {
    if ((m_drawn.at.at - was).norm() < kTouch_mm && dragged())
      m_drawn.at = {m_box.low + Vec2(onLattice(m_stroke.to.x() - m_box.low.x(), lattice()),
                                     onLattice(m_stroke.to.y() - m_box.low.y(), lattice())),
                    SnapTo::Lattice};
    return m_drawn.at.at;
  }

  static constexpr double kCornerSize_mm = 5; ///< until it is dragged or typed
  const PieceWork& m_work;
  const Stroke& m_stroke;
  LengthUnit m_unit;
  Box2 m_box;
  Drawn m_drawn;
};

} // namespace

Grip gripAt(const PieceWork& work, const Vec2& at, double reach_mm) {
  const auto near = [&](const Vec2& p) { return (p - at).norm() < reach_mm; };
  const auto line = lineAt(work, at, reach_mm);
  for (std::size_t k = work.lines.size(); k-- > 0;) {
    if (near(work.lines[k].to)) return {What::LineTo, k};
    if (near(work.lines[k].from)) return {What::LineFrom, k};
  }
  if (const auto corner = cornerAt(work, at, reach_mm)) return {What::Corner, *corner};
  for (std::size_t k = 0; k < work.windows.size(); ++k)
    for (std::size_t c = 0; c < work.windows[k].size(); ++c)
      if (near(work.windows[k][c])) return {What::OpeningCorner, k, c};
  if (line) return {What::Line, *line};
  if (const auto edge = edgeAt(work, at, reach_mm)) return {What::Rim, *edge};
  for (std::size_t k = 0; k < work.windows.size(); ++k)
    if (encloses(work.windows[k], at)) return {What::Opening, k};
  return {contains(work.outline, at) ? What::Panel : What::Nothing};
}

Drawn drawnBy(const SheetInWork& sheet, const Stroke& stroke, LengthUnit unit) {
  return Drawing(sheet, stroke, unit).run();
}

Result<std::vector<double>> typedMeasures(const std::vector<StrokeMeasure>& measures,
                                          std::string_view text, LengthUnit unit) {
  SheetScanner in(text, unit);
  std::vector<double> values;
  for (const StrokeMeasure& measure : measures) {
    if (!measure.typed) continue;
    if (in.atEnd()) break;
    if (!values.empty() && !in.take("x")) in.take(",");
    const auto value = measure.angle ? in.angle_deg() : in.length();
    if (!value) return in.lost(measure.angle ? "angle" : "length");
    values.push_back(*value);
  }
  if (!in.atEnd()) return in.tooMuch();
  return values;
}

std::string placeInWords(const PieceWork& work, const Vec2& at, LengthUnit unit) {
  const Vec2 from = at - boundsOf(work.outline).low;
  return exactLength(from.x(), unit) + "," + exactLength(from.y(), unit);
}

Vec2 nameOfLine(const PieceWork& work, std::size_t line) {
  const Vec2 from = work.lines[line].from, way = work.lines[line].to - from;
  for (double share : {0.5, 0.25, 0.75, 0.375, 0.625, 0.125, 0.875})
    if (lineAt(work, from + share * way) == line) return from + share * way;
  return from + 0.5 * way;
}

} // namespace hinge
