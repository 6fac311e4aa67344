// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/hand_words.h"
#include "core/pieces/score_edits.h"
#include "core/pieces/sheet_edits.h"
#include "core/units/length.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kNear_mm = 0.5; ///< how near a point must be named to what is meant
constexpr int kMostTimes = 200;

class HandSentence {
public:
  HandSentence(const PieceWork& work, SheetScanner& in, const Vec2& corner)
      : m_work(work), m_in(in), m_corner(corner) {}

  using Made = Result<PieceWork>;
  struct Verb {
    std::string_view word;
    Made (HandSentence::*run)();
  };
  static const std::vector<Verb>& verbs() {
    static const std::vector<Verb> all{
        {"pull", &HandSentence::pull},     {"kink", &HandSentence::kink},
        {"smooth", &HandSentence::smooth}, {"round", &HandSentence::round},
        {"snip", &HandSentence::snip},     {"lean", &HandSentence::lean},
        {"repeat", &HandSentence::repeat}, {"alike", &HandSentence::alike},
        {"close", &HandSentence::close},   {"trim", &HandSentence::trim}};
    return all;
  }

private:
  std::optional<Vec2> point() {
    const auto p = m_in.point();
    return p ? std::optional<Vec2>(*p + m_corner) : std::nullopt;
  }
  Error nothingAt(const Vec2& p) const {
    return {
        {"sheet.nothing-at", Millimetres{p.x() - m_corner.x()}, Millimetres{p.y() - m_corner.y()}},
        ""};
  }
  /// "P to P".
  Result<std::pair<Vec2, Vec2>> way() {
    const auto from = point();
    if (!from) return m_in.lost("x,y");
    if (!m_in.take("to")) return m_in.lost("to");
    const auto to = point();
    if (!to) return m_in.lost("x,y");
    return std::pair{*from, *to};
  }

  /// "trim top 3/8 [from 2] [to 3 1/2]".
  Made trim() {
    const auto side = sideIn(m_in);
    if (!side) return m_in.lost("left, right, bottom, top");
    const auto depth = m_in.length();
    if (!depth) return m_in.lost("length");
    const int along = *side == SheetEdge::Left || *side == SheetEdge::Right ? 1 : 0;
    constexpr double kFar_mm = 1e4;
    double ends[2] = {-kFar_mm, kFar_mm};
    for (int k : {0, 1}) {
      if (!m_in.take(k == 0 ? "from" : "to")) continue;
      const auto place = m_in.length();
      if (!place) return m_in.lost("length");
      ends[k] = *place + m_corner[along];
    }
    if (!(*depth > 0) || !(ends[0] < ends[1])) return Error{"sheet.trim-nothing", ""};
    return withTrimmed(m_work, *side, *depth, ends[0], ends[1]);
  }

  Made pull() {
    if (m_in.take("edge")) return pullEdge();
    using Pull = Made (HandSentence::*)(const Vec2&, const Vec2&);
    static constexpr std::pair<std::string_view, Pull> kParts[] = {
        {"corner", &HandSentence::pullCorner},
        {"end", &HandSentence::pullEnd},
        {"line", &HandSentence::pullLine},
        {"opening", &HandSentence::pullOpening}};
    for (const auto& [word, run] : kParts) {
      if (!m_in.take(word)) continue;
      const auto along = way();
      return along ? (this->*run)(along->first, along->second) : Made(along.error());
    }
    return m_in.lost("corner, edge, end, line, opening");
  }

  Made pullEdge() {
    const auto at = point();
    if (!at) return m_in.lost("x,y");
    if (!m_in.take("to")) return m_in.lost("to");
    const auto width = m_in.length();
    if (!width) return m_in.lost("length");
    const auto edge = edgeAt(m_work, *at, kNear_mm);
    if (!edge) return nothingAt(*at);
    return withEdgeMoved(m_work, *edge, *width - widthAt_mm(m_work, *edge));
  }
  Made pullCorner(const Vec2& from, const Vec2& to) {
    const auto corner = cornerAt(m_work, from, kNear_mm);
    return corner ? withCornerMoved(m_work, *corner, to) : nothingAt(from);
  }
  Made pullEnd(const Vec2& from, const Vec2& to) {
    // Of lines that end in one point the one put in last.
    for (std::size_t k = m_work.lines.size(); k-- > 0;)
      for (bool last : {false, true})
        if (((last ? m_work.lines[k].to : m_work.lines[k].from) - from).norm() < kNear_mm)
          return withEndMoved(m_work, k, last, to);
    return nothingAt(from);
  }
  Made pullLine(const Vec2& from, const Vec2& to) {
    const auto line = lineAt(m_work, from);
    return line ? withLineMoved(m_work, *line, to - from) : nothingAt(from);
  }
  Made pullOpening(const Vec2& from, const Vec2& to) {
    PieceWork made = m_work;
    for (Polygon& window : made.windows)
      for (Vec2& p : window)
        if ((p - from).norm() < kNear_mm) {
          p = to;
          return checked(std::move(made));
        }
    for (Polygon& window : made.windows)
      if (encloses(window, from)) {
        for (Vec2& p : window)
          p += to - from;
        return checked(std::move(made));
      }
    return nothingAt(from);
  }

  Made kink() {
    const auto at = point();
    if (!at) return m_in.lost("x,y");
    const auto edge = edgeAt(m_work, *at, kNear_mm);
    return edge ? withCornerAdded(m_work, *edge, *at) : nothingAt(*at);
  }
  Made smooth() {
    const auto at = point();
    if (!at) return m_in.lost("x,y");
    const auto corner = cornerAt(m_work, *at, kNear_mm);
    return corner ? withCornerRemoved(m_work, *corner) : nothingAt(*at);
  }
  Made cornerCut(CornerCut how) {
    const auto at = point();
    if (!at) return m_in.lost("x,y");
    if (!m_in.take("by")) return m_in.lost("by");
    const auto size = m_in.length();
    if (!size) return m_in.lost("length");
    const auto corner = cornerAt(m_work, *at, kNear_mm);
    return corner ? withCornerCut(m_work, *corner, how, *size) : nothingAt(*at);
  }
  Made round() { return cornerCut(CornerCut::Round); }
  Made snip() { return cornerCut(CornerCut::Snip); }

  Made lean() {
    const auto which = lineMeant(m_work, m_in, m_corner);
    if (!which) return which.error();
    const auto angle = m_in.angle_deg();
    if (!angle) return m_in.lost("angle");
    return withLineLeaning(m_work, *which, *angle);
  }
  Made repeat() {
    const auto which = lineMeant(m_work, m_in, m_corner);
    if (!which) return which.error();
    if (!m_in.take("every")) return m_in.lost("every");
    const auto step = m_in.length();
    if (!step) return m_in.lost("length");
    int times = 0;
    if (m_in.take("times")) {
      const auto count = m_in.angle_deg(); // a number
      if (!count || *count < 1 || *count > kMostTimes || *count != std::floor(*count))
        return m_in.lost("1 ... 200");
      times = static_cast<int>(*count);
    }
    const bool turning = m_in.take("turning");
    return withRepeated(m_work, *which, *step, times, turning);
  }
  Made alike() { return withBothSidesAlike(m_work); }
  Made close() {
    const auto at = point();
    if (!at) return m_in.lost("x,y");
    PieceWork made = m_work;
    const auto gone =
        std::ranges::find_if(made.windows, [&](const Polygon& w) { return encloses(w, *at); });
    if (gone == made.windows.end()) return nothingAt(*at);
    made.windows.erase(gone);
    return made;
  }

  static Made checked(PieceWork work) {
    if (auto valid = validate(work, ""); !valid) return valid.error();
    return work;
  }

  const PieceWork& m_work;
  SheetScanner& m_in;
  Vec2 m_corner;
};

} // namespace

std::optional<SheetEdge> sideIn(SheetScanner& in) {
  for (std::size_t k = 0; k < kSideWords.size(); ++k)
    if (in.take(kSideWords[k])) return static_cast<SheetEdge>(k);
  return std::nullopt;
}

const std::vector<std::string_view>& handVerbs() {
  static const std::vector<std::string_view> words = [] {
    std::vector<std::string_view> all;
    for (const HandSentence::Verb& verb : HandSentence::verbs())
      all.push_back(verb.word);
    return all;
  }();
  return words;
}

Result<std::size_t> lineMeant(const PieceWork& work, SheetScanner& in, const Vec2& corner) {
  constexpr double kPlace_mm = 0.05; // how near a place must be named
  if (const auto p = in.point()) {
    if (const auto found = lineAt(work, *p + corner)) return *found;
    return Error{{"sheet.no-line/at", Millimetres{p->x()}, Millimetres{p->y()}}, ""};
  }
  const auto place = in.length();
  if (!place) return in.lost("length");
  for (const ScoreMark& mark : scoreMarks(work))
    if (std::abs(mark.low_mm - *place) < kPlace_mm) return mark.line;
  return Error{{"sheet.no-line", Millimetres{*place}}, ""};
}

std::optional<Result<PieceWork>> workedByHand(const PieceWork& work, SheetScanner& in,
                                              const Vec2& corner) {
  HandSentence sentence(work, in, corner);
  for (const HandSentence::Verb& verb : HandSentence::verbs())
    if (in.take(verb.word)) return (sentence.*verb.run)();
  return std::nullopt;
}

} // namespace hinge
