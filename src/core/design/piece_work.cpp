// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/design/piece_work.h"
#include "core/geom/rim.h"
#include "core/units/length.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace hinge {
namespace {
constexpr double kFarthest_mm = 5000;
constexpr double kLeastPanel_mm = 0.5, kLongestCatch_mm = 50;
constexpr int kMostOver = 20; ///< things on one face that a limb or slider can lie over

Error refused(Text why, std::string place = "") {
  return {std::move(why), std::move(place)};
}
Text called(const given::Kind& kind) {
  return "joint." + std::string(jointKey(kind));
}

/// Everything on or right of the line low -> high moves to the right. Slanted edges may turn by
/// that: scores that ended on the outline still do.
Result<PieceWork> shiftedBeyond(const PieceWork& work, const Vec2& low, const Vec2& high,
                                double by) {
  PieceWork moved = work;
  const auto shift = [&](Vec2& p) {
    const double at =
        low.x() + (high.x() - low.x()) * (p.y() - low.y()) / std::max(high.y() - low.y(), 1e-9);
    if (p.x() > at - kTouch_mm) p.x() += by;
  };
  eachPoint(moved, shift);
  for (std::size_t k = 0; k < moved.lines.size(); ++k) {
    WorkLine& line = moved.lines[k];
    const auto onRim = [&](const Vec2& p) {
      return distanceToOutline(work.outline, p) < kTouch_mm;
    };
    if (onRim(work.lines[k].to)) line.to = endOnRim(moved.outline, line.to, line.from);
    if (onRim(work.lines[k].from)) line.from = endOnRim(moved.outline, line.from, line.to);
  }
  return checked(std::move(moved));
}
} // namespace

void eachPoint(PieceWork& work, const std::function<void(Vec2&)>& change) {
  std::ranges::for_each(work.outline, change);
  for (WorkLine& line : work.lines)
    change(line.from), change(line.to);
  for (Polygon& window : work.windows)
    std::ranges::for_each(window, change);
  for (PieceJoint& joint : work.joints) {
    change(joint.at);
    for (PlaceRule& rule : joint.rules)
      eachPoint(rule, change);
    if (auto* glue = std::get_if<given::Glue>(&joint.kind))
      std::ranges::for_each(glue->area, change);
  }
}

std::string_view workKey(WorkLine::Kind kind) {
  switch (kind) {
  case WorkLine::Kind::Mountain: return "mountain";
  case WorkLine::Kind::Valley: return "valley";
  case WorkLine::Kind::Cut: return "cut";
  }
  return "";
}

namespace {

/// What a joint of this kind cannot be; nothing when it can.
std::optional<Error> wrongNumbers(const given::Kind& kind) {
  const auto tie = [&](double length_mm) -> std::optional<Error> {
    if (length_mm > 0 && length_mm <= kFarthest_mm) return std::nullopt;
    return Error{{"work.length", called(kind)}, ""};
  };
  if (const auto* band = std::get_if<given::Band>(&kind)) return tie(band->length_mm);
  if (const auto* film = std::get_if<given::Film>(&kind)) return tie(film->length_mm);
  if (const auto* slot = std::get_if<given::Slot>(&kind)) {
    if (!(slot->catch_mm >= 0 && slot->catch_mm <= kLongestCatch_mm))
      return Error{{"work.catch", Millimetres{kLongestCatch_mm}}, ""};
    if (!(slot->slit_mm >= 0 && slot->faceSlit_mm >= 0)) return Error{"work.slit", ""};
  }
  const auto laid = [](double over) {
    return over >= 0 && over <= kMostOver && over == std::floor(over);
  };
  const auto* pivot = std::get_if<given::Pivot>(&kind);
  const auto* slide = std::get_if<given::Slide>(&kind);
  if ((pivot && !laid(pivot->over)) || (slide && !laid(slide->over)))
    return Error{{"work.over", kMostOver}, ""};
  if ((pivot && !(pivot->handStep_deg >= 0)) || (slide && !(slide->handStep_mm >= 0)))
    return Error{"work.step", ""};
  if (pivot)
    if (!(std::abs(pivot->handFrom_deg) <= 180 && std::abs(pivot->handTo_deg) <= 180))
      return Error{"work.spun", ""};
  if (slide)
    if (!(slide->least_mm <= slide->most_mm && slide->pullFrom_deg >= 0 &&
          slide->pullFrom_deg <= slide->pullTo_deg && slide->pullTo_deg <= 180))
      return Error{"work.slide", ""};
  return std::nullopt;
}

} // namespace

namespace {

bool possible(const PlaceRule& rule) {
  PlaceRule named = rule;
  bool sane = true;
  eachPoint(named,
            [&](Vec2& p) { sane &= p.allFinite() && p.cwiseAbs().maxCoeff() <= kFarthest_mm; });
  if (const placed::LineBelow* line = lineBelow(rule))
    if (const auto* fold = std::get_if<placed::FoldBelow>(line))
      sane &= std::ranges::all_of(fold->key, [](char c) {
        return std::isalnum(static_cast<unsigned char>(c)) || c == '-' || c == '/';
      });
  if (const auto* distance = std::get_if<placed::Distance>(&rule))
    sane &= std::abs(distance->distance_mm) <= kFarthest_mm;
  constexpr double kMostInRow = 100;
  if (const auto* spaced = std::get_if<placed::Spaced>(&rule))
    sane &= spaced->of >= 1 && spaced->of <= kMostInRow && spaced->of == std::floor(spaced->of) &&
            spaced->which >= 1 && spaced->which <= spaced->of &&
            spaced->which == std::floor(spaced->which);
  return sane;
}

bool possible(const FoldMoves& moves) {
  const auto within = [](double deg, double most) { return deg >= 0 && deg <= most; };
  return within(moves.shut_deg, 360) && within(moves.open_deg, 360) &&
         within(moves.from_deg, 180) && within(moves.to_deg, 180) &&
         moves.from_deg < moves.to_deg && within(moves.step_deg, 360);
}

} // namespace

Result<void> validate(const PieceWork& work, std::string_view place) {
  const auto at = [&](std::string_view what, std::size_t k) {
    return fmt::format("{}{}{}[{}]", place, place.empty() ? "" : ".", what, k);
  };
  const auto sane = [](const Vec2& p) {
    return p.allFinite() && p.cwiseAbs().maxCoeff() <= kFarthest_mm;
  };
  if (work.outline.size() > 1000 || work.lines.size() > 800 || work.windows.size() > 200 ||
      work.joints.size() > 200)
    return refused("work.too-much/parts", std::string(place));
  for (std::size_t k = 0; k < work.outline.size(); ++k)
    if (!sane(work.outline[k]))
      return refused({"work.size", Millimetres{kFarthest_mm}}, at("outline", k));
  if (!isSimple(work.outline) || std::abs(signedArea_mm2(work.outline)) < 1)
    return refused("work.outline", std::string(place));
  for (std::size_t k = 0; k < work.lines.size(); ++k) {
    const WorkLine& line = work.lines[k];
    if (!sane(line.from) || !sane(line.to))
      return refused({"work.size", Millimetres{kFarthest_mm}}, at("lines", k));
    if ((line.to - line.from).norm() < kLeastPanel_mm)
      return refused({"work.line", Millimetres{kLeastPanel_mm}}, at("lines", k));
    if (line.moves && !possible(*line.moves)) return refused("work.moves", at("lines", k));
    if (line.folded_deg && !(*line.folded_deg >= 0 && *line.folded_deg <= 180))
      return refused("work.folded", at("lines", k));
    for (const Vec2& end : {line.from, line.to})
      if (!contains(work.outline, end, kTouch_mm))
        return refused({"work.line-outside", Text("line." + std::string(workKey(line.kind))),
                        Millimetres{line.from.x()}},
                       at("lines", k));
  }
  for (std::size_t k = 0; k < work.windows.size(); ++k)
    if (!std::ranges::all_of(work.windows[k], sane) || !isSimple(work.windows[k]))
      return refused("work.window", at("windows", k));
  for (std::size_t k = 0; k < work.joints.size(); ++k) {
    const PieceJoint& j = work.joints[k];
    given::Kind kind = j.kind;
    if (!sane(j.at) || !sane(j.to) ||
        !std::ranges::all_of(numbersOf(kind), [](const JointNumber& n) {
          return n.isLength() || std::isfinite(*n.value);
        }))
      return refused("work.joint", at("joints", k));
    if (!contains(work.outline, j.at, kTouch_mm))
      return refused(
          {"work.joint-outside", called(j.kind), Millimetres{j.at.x()}, Millimetres{j.at.y()}},
          at("joints", k));
    constexpr std::size_t kMostRules = 4;
    if (j.rules.size() > kMostRules) return refused({"work.rules", kMostRules}, at("joints", k));
    if (!std::ranges::all_of(j.rules, [](const PlaceRule& rule) { return possible(rule); }))
      return refused("work.rule", at("joints", k));
    if (const auto wrong = wrongNumbers(j.kind)) return refused(wrong->message, at("joints", k));
    if (const auto* glue = std::get_if<given::Glue>(&j.kind); glue && !glue->area.empty())
      if (glue->area.size() > 1000 || !std::ranges::all_of(glue->area, sane) ||
          !isSimple(glue->area))
        return refused("work.glue-area", at("joints", k));
  }
  return {};
}

PieceWork plainStrip(double width_mm, double height_mm) {
  PieceWork work;
  work.outline = {{0, 0}, {width_mm, 0}, {width_mm, height_mm}, {0, height_mm}};
  return work;
}

std::vector<ScoreMark> scoreMarks(const PieceWork& work) {
  const Box2 box = boundsOf(work.outline);
  // The end on the lower edge is the one that is lower; both must lie on the outline.
  std::vector<ScoreMark> marks;
  for (std::size_t k = 0; k < work.lines.size(); ++k) {
    const WorkLine& line = work.lines[k];
    if (line.kind == WorkLine::Kind::Cut) continue;
    const Vec2 low = line.from.y() <= line.to.y() ? line.from : line.to,
               high = line.from.y() <= line.to.y() ? line.to : line.from;
    if (distanceToOutline(work.outline, low) > kTouch_mm ||
        distanceToOutline(work.outline, high) > kTouch_mm)
      continue;
    if (high.y() - low.y() < std::abs(high.x() - low.x())) continue; // across, not up
    marks.push_back({k, low.x() - box.low.x(), high.x() - box.low.x()});
  }
  std::ranges::stable_sort(marks, {}, &ScoreMark::low_mm);
  // Scores may meet on the lower edge, or in a corner: there they part no strip into widths, and
  // only the first of them is read from the edge.
  std::vector<ScoreMark> apart;
  for (const ScoreMark& mark : marks) {
    const double last = apart.empty() ? 0 : apart.back().low_mm;
    if (mark.low_mm - last >= kLeastPanel_mm && box.size().x() - mark.low_mm >= kLeastPanel_mm)
      apart.push_back(mark);
  }
  return apart;
}

std::vector<double> panelWidths_mm(const PieceWork& work) {
  std::vector<double> widths;
  double last = 0;
  for (const ScoreMark& mark : scoreMarks(work))
    widths.push_back(mark.low_mm - last), last = mark.low_mm;
  widths.push_back(boundsOf(work.outline).size().x() - last);
  return widths;
}

std::vector<Vec2> panelPoints(const PieceWork& work) {
  const auto marks = scoreMarks(work);
  const Box2 box = boundsOf(work.outline);
  if (marks.empty()) return {centroidOf(convexParts(work.outline).front())};
  const auto at = [&](const ScoreMark& mark, double y) {
    const WorkLine& line = work.lines[mark.line];
    return line.from.x() +
           (line.to.x() - line.from.x()) * (y - line.from.y()) / (line.to.y() - line.from.y());
  };
  std::vector<Vec2> points;
  for (std::size_t k = 0; k <= marks.size(); ++k) {
    const WorkLine& beside = work.lines[marks[k == 0 ? 0 : k - 1].line];
    const double y = 0.5 * (beside.from.y() + beside.to.y());
    points.push_back({0.5 * ((k == 0 ? box.low.x() : at(marks[k - 1], y)) +
                             (k == marks.size() ? box.high.x() : at(marks[k], y))),
                      y});
  }
  return points;
}

Result<PieceWork> withScoreMoved(const PieceWork& work, std::size_t index, double low_mm,
                                 bool carry) {
  const auto marks = scoreMarks(work);
  const auto mark = std::ranges::find(marks, index, &ScoreMark::line);
  if (mark == marks.end()) return refused("work.no-score");
  const double left = mark == marks.begin() ? 0.0 : std::prev(mark)->low_mm;
  const double right = carry                            ? kFarthest_mm
                       : std::next(mark) == marks.end() ? boundsOf(work.outline).size().x()
                                                        : std::next(mark)->low_mm;
  if (!(low_mm > left + kLeastPanel_mm && low_mm < right - kLeastPanel_mm))
    return refused({"work.order", Millimetres{low_mm}});
  const double by = low_mm - mark->low_mm;
  PieceWork moved = work;
  if (!carry) {
    WorkLine& line = moved.lines[index];
    for (Vec2* p : {&line.from, &line.to})
      p->x() += by;
    line.to = endOnRim(moved.outline, line.to, line.from),
    line.from = endOnRim(moved.outline, line.from, line.to);
    return checked(std::move(moved));
  }
  const WorkLine& line = work.lines[index];
  const bool rising = line.from.y() <= line.to.y();
  return shiftedBeyond(work, rising ? line.from : line.to, rising ? line.to : line.from, by);
}

Result<PieceWork> withPanelWidth(const PieceWork& work, std::size_t panel, double width_mm) {
  const auto marks = scoreMarks(work);
  const auto widths = panelWidths_mm(work);
  if (panel >= widths.size()) return refused({"work.no-panel", widths.size()});
  if (panel < marks.size())
    return withScoreMoved(work, marks[panel].line, marks[panel].low_mm + width_mm - widths[panel],
                          true);
  if (width_mm < kLeastPanel_mm) return refused("work.order/vanish");
  // The right end: what lies in the last half of the last panel moves.
  const Box2 box = boundsOf(work.outline);
  const double x = box.high.x() - 0.5 * widths.back();
  return shiftedBeyond(work, {x, box.low.y()}, {x, box.high.y()}, width_mm - widths.back());
}

Result<PieceWork> withScoreAdded(const PieceWork& work, double at_mm, WorkLine::Kind kind) {
  const Box2 box = boundsOf(work.outline);
  const double x = box.low.x() + at_mm;
  for (const ScoreMark& mark : scoreMarks(work))
    if (std::abs(mark.low_mm - at_mm) < kLeastPanel_mm)
      return refused({"work.order/there", Millimetres{at_mm}});
  // Up through the paper at that place.
  std::vector<double> heights;
  for (const auto& [a, b] : edgesOf(work.outline))
    if ((a.x() > x) != (b.x() > x))
      heights.push_back(a.y() + (b.y() - a.y()) * (x - a.x()) / (b.x() - a.x()));
  if (heights.size() < 2) return refused({"work.score-outside", Millimetres{at_mm}});
  PieceWork added = work;
  added.lines.push_back({kind, {x, std::ranges::min(heights)}, {x, std::ranges::max(heights)}});
  return checked(std::move(added));
}

Result<PieceWork> withLineRemoved(const PieceWork& work, std::size_t line) {
  if (line >= work.lines.size()) return refused("work.no-line");
  PieceWork left = work;
  left.lines.erase(left.lines.begin() + static_cast<std::ptrdiff_t>(line));
  return left;
}

Result<PieceWork> withLineTurned(const PieceWork& work, std::size_t line) {
  if (line >= work.lines.size() || work.lines[line].kind == WorkLine::Kind::Cut)
    return refused("work.no-line/score");
  PieceWork turned = work;
  WorkLine::Kind& kind = turned.lines[line].kind;
  kind = kind == WorkLine::Kind::Mountain ? WorkLine::Kind::Valley : WorkLine::Kind::Mountain;
  return turned;
}

Result<PieceWork> withScores(const PieceWork& work, const std::vector<ScorePlace>& places) {
  using Kind = WorkLine::Kind;
  for (std::size_t k = 1; k < places.size(); ++k)
    if (places[k].low_mm < places[k - 1].low_mm + kLeastPanel_mm)
      return refused(
          {"work.order/rise", Millimetres{places[k].low_mm}, Millimetres{places[k - 1].low_mm}});
  PieceWork changed = work;
  auto marks = scoreMarks(changed);
  while (marks.size() > places.size()) {
    changed.lines.erase(changed.lines.begin() + static_cast<std::ptrdiff_t>(marks.back().line));
    marks = scoreMarks(changed);
  }
  for (std::size_t k = 0; k < marks.size(); ++k) {
    WorkLine& line = changed.lines[marks[k].line];
    for (Vec2* p : {&line.from, &line.to})
      p->x() += places[k].low_mm - marks[k].low_mm;
    line.kind = places[k].kind.value_or(line.kind);
  }
  const auto other = [](Kind kind) {
    return kind == Kind::Mountain ? Kind::Valley : Kind::Mountain;
  };
  Kind last = marks.empty() ? Kind::Mountain : changed.lines[marks.back().line].kind;
  for (std::size_t k = marks.size(); k < places.size(); ++k) {
    last = places[k].kind.value_or(other(last));
    auto more = withScoreAdded(changed, places[k].low_mm, last);
    if (!more) return more;
    changed = std::move(more).value();
  }
  return checked(std::move(changed));
}

namespace {

/// Left and right exchanged; `of` says what becomes of a joint.
PieceWork exchanged(const PieceWork& work, given::Kind (*of)(const given::Kind&)) {
  const Box2 box = boundsOf(work.outline);
  PieceWork image = work;
  eachPoint(image, [&](Vec2& p) { p.x() = box.low.x() + box.high.x() - p.x(); });
  std::ranges::reverse(image.outline);
  for (Polygon& window : image.windows)
    std::ranges::reverse(window);
  for (PieceJoint& joint : image.joints) {
    joint.kind = of(joint.kind);
    for (PlaceRule& rule : joint.rules)
      rule = mirrored(rule);
  }
  return image;
}

} // namespace

PieceWork mirrored(const PieceWork& work) {
  return exchanged(work, mirrored);
}

PieceWork turnedOver(const PieceWork& work) {
  return exchanged(work, turnedOver);
}

Result<PieceWork> checked(PieceWork work) {
  if (auto valid = validate(work, ""); !valid) return valid.error();
  return work;
}

} // namespace hinge
