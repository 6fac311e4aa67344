// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/score_edits.h"
#include "core/geom/rim.h"
#include "core/pieces/sheet_edits.h"
#include "core/units/length.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <iterator>

namespace hinge {
namespace {

using Kind = WorkLine::Kind;
constexpr int kMostRepeats = 200;
constexpr double kSameArea_mm2 = 1e-6;

bool onRim(const PieceWork& work, const Vec2& p) {
  return distanceToOutline(work.outline, p) < kTouch_mm;
}

/// The line elsewhere, with its ends on the rim where they were; nothing when it misses the paper.
std::optional<WorkLine> shifted(const PieceWork& work, const WorkLine& line, const Vec2& by) {
  WorkLine moved = line;
  moved.from += by, moved.to += by;
  const Vec2 middle = 0.5 * (moved.from + moved.to);
  if (!contains(work.outline, middle)) return std::nullopt;
  if (onRim(work, line.from)) moved.from = endOnRim(work.outline, moved.from, middle);
  if (onRim(work, line.to)) moved.to = endOnRim(work.outline, moved.to, middle);
  for (const Vec2& end : {moved.from, moved.to})
    if (!contains(work.outline, end, kTouch_mm)) return std::nullopt;
  return moved;
}

bool isLevel(const WorkLine& line) {
  const Vec2 d = line.to - line.from;
  return std::abs(d.y()) < std::abs(d.x());
}

Kind otherWay(Kind kind) {
  if (kind == Kind::Cut) return kind;
  return kind == Kind::Mountain ? Kind::Valley : Kind::Mountain;
}

bool alike(const Vec2& a, const Vec2& b) {
  return (a - b).norm() < kSamePoint_mm;
}

} // namespace

Result<PieceWork> withEndMoved(const PieceWork& work, std::size_t line, bool last, const Vec2& to) {
  PieceWork made = work;
  (last ? made.lines[line].to : made.lines[line].from) = to;
  return checked(std::move(made));
}

namespace {

/// How far on from `end` along a direction the paper is parted: by its rim, a line or an opening.
/// Nothing when what is met lies at the end itself, or nothing is.
std::optional<double> roomOn(const PieceWork& work, std::size_t line, const Vec2& end,
                             const Vec2& along) {
  std::vector<Edge> all = edgesOf(work.outline);
  for (const Polygon& window : work.windows)
    std::ranges::copy(edgesOf(window), std::back_inserter(all));
  for (std::size_t k = 0; k < work.lines.size(); ++k)
    if (k != line) all.push_back({work.lines[k].from, work.lines[k].to});
  std::optional<double> least;
  for (const auto& [a, b] : all) {
    if (distanceToSegment(end, a, b) < kTouch_mm) return std::nullopt;
    const Vec2 way = b - a;
    const double cross = cross2(along, way);
    if (std::abs(cross) < 1e-9 * way.norm()) continue;
    const double t = cross2(Vec2(a - end), way) / cross, s = cross2(Vec2(a - end), along) / cross;
    if (t > 0 && s > -1e-9 && s < 1 + 1e-9 && (!least || t < *least)) least = t;
  }
  return least;
}

} // namespace

std::vector<std::size_t> rowOf(const PieceWork& work, std::size_t line) {
  const WorkLine& own = work.lines[line];
  const Vec2 along = (own.to - own.from).normalized();
  const auto onIt = [&](const Vec2& p) {
    return std::abs(cross2(along, Vec2(p - own.from))) < kTouch_mm;
  };
  struct Stretch {
    double from, to;
    std::size_t line;
  };
  std::vector<Stretch> all;
  for (std::size_t k = 0; k < work.lines.size(); ++k) {
    const WorkLine& other = work.lines[k];
    if (k != line && (other.kind != own.kind || !onIt(other.from) || !onIt(other.to))) continue;
    const auto [from, to] =
        std::minmax({along.dot(other.from - own.from), along.dot(other.to - own.from)});
    all.push_back({from, to, k});
  }
  std::ranges::sort(all, {}, &Stretch::from);
  // Where the sheet itself has a gap a row ends.
  std::vector<std::size_t> row;
  double end = 0;
  for (const Stretch& stretch : all) {
    const Vec2 between = own.from + 0.5 * (end + stretch.from) * along;
    const bool goesOn =
        row.empty() || stretch.from < end + kTouch_mm ||
        (contains(work.outline, between) && distanceToOutline(work.outline, between) > kTouch_mm);
    if (!goesOn && std::ranges::find(row, line) != row.end()) break;
    if (!goesOn) row.clear();
    end = row.empty() ? stretch.to : std::max(end, stretch.to);
    row.push_back(stretch.line);
  }
  return row;
}

bool isFromEdgeToEdge(const PieceWork& work, const std::vector<std::size_t>& row) {
  const WorkLine& own = work.lines[row.front()];
  const Vec2 along = (own.to - own.from).normalized();
  Vec2 low = own.from, high = own.from;
  for (const std::size_t k : row)
    for (const Vec2& end : {work.lines[k].from, work.lines[k].to}) {
      if (along.dot(end - low) < 0) low = end;
      if (along.dot(end - high) > 0) high = end;
    }
  return onRim(work, low) && onRim(work, high);
}

std::optional<PieceWork> withLineDrawnOn(const PieceWork& work, std::size_t line) {
  const WorkLine& own = work.lines[line];
  const Vec2 along = (own.to - own.from).normalized();
  PieceWork made = work;
  const auto before = roomOn(work, line, own.from, -along),
             after = roomOn(work, line, own.to, along);
  if (!before && !after) return std::nullopt;
  if (before) made.lines[line].from -= *before * along;
  if (after) made.lines[line].to += *after * along;
  return made;
}

Result<PieceWork> withLineMoved(const PieceWork& work, std::size_t line, const Vec2& by) {
  const auto moved = shifted(work, work.lines[line], by);
  if (!moved)
    return Error{{"work.score-outside", Millimetres{work.lines[line].from.x() + by.x()}}, ""};
  PieceWork made = work;
  made.lines[line] = *moved;
  return checked(std::move(made));
}

double leaning_deg(const WorkLine& line) {
  Vec2 d = line.to - line.from;
  if (d.y() < 0) d = -d;
  return degrees(std::atan2(d.x(), d.y()));
}

Result<PieceWork> withLineLeaning(const PieceWork& work, std::size_t line, double angle_deg) {
  PieceWork made = work;
  WorkLine& own = made.lines[line];
  const bool up = own.from.y() <= own.to.y();
  const Vec2 low = up ? own.from : own.to, high = up ? own.to : own.from;
  const Vec2 along(std::sin(radians(angle_deg)), std::cos(radians(angle_deg)));
  Vec2 end = low + (high - low).norm() * along;
  if (onRim(work, high)) end = endOnRim(work.outline, end, low);
  (up ? own.to : own.from) = end;
  return checked(std::move(made));
}

Result<PieceWork> withRepeated(const PieceWork& work, std::size_t line, double every_mm, int count,
                               bool turning) {
  const WorkLine& first = work.lines[line];
  const Vec2 step = isLevel(first) ? Vec2(0, every_mm) : Vec2(every_mm, 0);
  PieceWork made = work;
  int added = 0;
  const int most = count > 0 ? count : kMostRepeats;
  if (std::abs(every_mm) > kTouch_mm)
    for (Kind kind = first.kind; added < most; ++added) {
      auto next = shifted(work, first, (added + 1) * step);
      if (!next || onRim(work, 0.5 * (next->from + next->to))) break;
      if (turning) kind = otherWay(kind);
      next->kind = kind;
      made.lines.push_back(std::move(*next));
    }
  if (added == 0 || (count > 0 && added < count))
    return Error{{"sheet.no-room", Millimetres{every_mm}}, ""};
  return checked(std::move(made));
}

Result<PieceWork> withBothSidesAlike(const PieceWork& work) {
  const Box2 box = boundsOf(work.outline);
  const auto twin = [&](const Vec2& p) { return Vec2(box.low.x() + box.high.x() - p.x(), p.y()); };
  PieceWork made = work;
  for (const WorkLine& line : work.lines) {
    WorkLine image = line;
    image.from = twin(line.from), image.to = twin(line.to);
    const bool there = std::ranges::any_of(work.lines, [&](const WorkLine& other) {
      return (alike(other.from, image.from) && alike(other.to, image.to)) ||
             (alike(other.from, image.to) && alike(other.to, image.from));
    });
    if (!there) made.lines.push_back(std::move(image));
  }
  for (const Polygon& window : work.windows) {
    Polygon image;
    for (const Vec2& p : window)
      image.insert(image.begin(), twin(p));
    // By middle and area: the corners of a disc lie elsewhere in its mirror image.
    const bool there = std::ranges::any_of(work.windows, [&](const Polygon& other) {
      return alike(centroidOf(other), centroidOf(image)) &&
             std::abs(std::abs(signedArea_mm2(other)) - std::abs(signedArea_mm2(image))) <
                 kSameArea_mm2;
    });
    if (!there) made.windows.push_back(std::move(image));
  }
  if (made.lines.size() == work.lines.size() && made.windows.size() == work.windows.size())
    return Error{"sheet.alike", ""};
  return checked(std::move(made));
}

} // namespace hinge
