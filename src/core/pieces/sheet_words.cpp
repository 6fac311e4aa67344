// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/sheet_words.h"
#include "core/paper/starting_values.h"
#include "core/pieces/drawn_shape.h"
#include "core/pieces/hand_words.h"
#include "core/pieces/outline_edits.h"
#include "core/pieces/piece_sheet.h"
#include "core/pieces/rule_words.h"
#include "core/pieces/score_edits.h"
#include "core/pieces/sheet_edits.h"
#include "core/pieces/sheet_scanner.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <iterator>

namespace hinge {
namespace {

using Kind = WorkLine::Kind;

/// One sentence, read and done word by word.
class Sentence {
public:
  Sentence(const SheetInWork& sheet, std::string_view text, LengthUnit unit)
      : m_sheet(sheet), m_in(text, unit),
        m_corner(sheet.work.outline.empty() ? Vec2::Zero() : boundsOf(sheet.work.outline).low) {}

  Result<SheetInWork> run() {
    struct Verb {
      std::string_view word;
      Result<void> (Sentence::*run)();
    };
    static constexpr Verb kVerbs[] = {
        {"size", &Sentence::size},       {"outline", &Sentence::outline},
        {"score", &Sentence::score},     {"cut", &Sentence::cut},
        {"opening", &Sentence::opening}, {"reverse", &Sentence::reverse},
        {"tab", &Sentence::tab},         {"corners", &Sentence::corners},
        {"corner", &Sentence::corner},   {"turn", &Sentence::turn},
        {"erase", &Sentence::erase},     {"move", &Sentence::move},
        {"fold", &Sentence::fold},       {"loosen", &Sentence::loosen},
        {"glued", &Sentence::glued},     {"ground", &Sentence::ground}};
    for (std::size_t k = 0; k < kJointKeys.size(); ++k)
      if (m_in.take(kJointKeys[k])) return finished(joint(k));
    if (auto made = workedByHand(work(), m_in, m_corner)) return finished(keep(std::move(*made)));
    const auto verb =
        std::ranges::find_if(kVerbs, [&](const Verb& v) { return m_in.take(v.word); });
    if (verb == std::end(kVerbs)) {
      std::vector<std::string_view> all(kJointKeys.begin(), kJointKeys.end());
      std::ranges::transform(kVerbs, std::back_inserter(all), &Verb::word);
      std::ranges::copy(handVerbs(), std::back_inserter(all));
      return m_in.noVerb(all);
    }
    return finished((this->*verb->run)());
  }

private:
  Result<SheetInWork> finished(const Result<void>& done) const {
    if (!done) return done.error();
    if (!m_in.atEnd()) return m_in.tooMuch();
    if (auto valid = validate(m_sheet.work, ""); !valid) return valid.error();
    return m_sheet;
  }
  PieceWork& work() { return m_sheet.work; }
  Error lost(std::string_view wanted) const { return m_in.lost(wanted); }
  std::optional<Vec2> point() {
    const auto p = m_in.point();
    return p ? std::optional<Vec2>(*p + m_corner) : std::nullopt;
  }
  std::optional<Kind> kind() {
    if (m_in.take("valley") || m_in.take("v")) return Kind::Valley;
    if (m_in.take("mountain") || m_in.take("m")) return Kind::Mountain;
    return std::nullopt;
  }
  /// Takes over what an edit came to.
  Result<void> keep(Result<PieceWork> made) {
    if (!made) return made.error();
    work() = std::move(made).value();
    return {};
  }

  Result<void> size() {
    const auto w = m_in.length();
    if (!w) return lost("length");
    if (!m_in.take("x")) return lost("x");
    const auto h = m_in.length();
    if (!h) return lost("length");
    if (!(*w >= kLeastSheet_mm && *h >= kLeastSheet_mm))
      return Error{{"sheet.size", Millimetres{*w}, Millimetres{*h}, Millimetres{kLeastSheet_mm}},
                   ""};
    return newOutline(plainStrip(*w, *h).outline);
  }

  Result<void> outline() {
    auto made = drawnShapeIn(m_in, work());
    if (!made) return made.error();
    return newOutline(std::move(made).value());
  }
  /// What ran to the rim does so again.
  Result<void> newOutline(Polygon outline) {
    if (work().outline.empty()) return work().outline = std::move(outline), Result<void>();
    return keep(withOutline(work(), std::move(outline)));
  }
  Polygon points() {
    Polygon found;
    while (const auto p = point())
      found.push_back(*p);
    return found;
  }

  /// What the maker decides of a fold; nothing: the joints do. False when it is not said.
  Result<bool> moves(std::optional<FoldMoves>& out) {
    if (m_in.take("free")) return out.reset(), true;
    if (m_in.take("held")) {
      m_in.take("at");
      const auto angle = m_in.angle_deg();
      if (!angle) return lost("angle");
      out = FoldMoves{*angle, *angle};
      return true;
    }
    if (m_in.take("lifted")) return lifted(out);
    if (!m_in.take("opens")) return false;
    FoldMoves made;
    if (m_in.take("from")) {
      const auto from = m_in.angle_deg();
      if (!from) return lost("angle");
      made.shut_deg = *from;
    }
    if (!m_in.take("to")) return lost("to");
    const auto to = m_in.angle_deg();
    if (!to) return lost("angle");
    made.open_deg = *to;
    if (m_in.take("between")) {
      const auto from = m_in.angle_deg();
      if (!from) return lost("angle");
      if (!m_in.take("and")) return lost("and");
      const auto until = m_in.angle_deg();
      if (!until) return lost("angle");
      made.from_deg = *from, made.to_deg = *until;
    }
    out = made;
    return true;
  }

  Result<bool> lifted(std::optional<FoldMoves>& out) {
    if (!m_in.take("from")) return lost("from");
    const auto from = m_in.angle_deg();
    if (!from) return lost("angle");
    if (!m_in.take("to")) return lost("to");
    const auto to = m_in.angle_deg();
    if (!to) return lost("angle");
    out = FoldMoves{*from, *to, 0, 180, true};
    if (!m_in.take("step")) return true;
    const auto step = m_in.angle_deg();
    if (!step) return lost("angle");
    out->step_deg = *step;
    return true;
  }

  /// Adds a score to its row.
  Result<void> addScore(const Vec2& from, const Vec2& to) {
    WorkLine line{Kind::Valley, from, to};
    const bool shortFirst = m_in.sees("from"); // either way round
    if (shortFirst)
      if (auto cut = shorten(line); !cut) return cut;
    const auto k = kind();
    if (!k) return lost("valley, mountain");
    line.kind = *k;
    if (!shortFirst && m_in.sees("from"))
      if (auto cut = shorten(line); !cut) return cut;
    const auto own = moves(line.moves);
    if (!own) return own.error();
    if (auto said = folded(line); !said) return said.error();
    const Vec2 middle = 0.5 * (line.from + line.to);
    if (const auto there = lineAt(work(), middle, kTouch_mm);
        there && work().lines[*there].kind != Kind::Cut &&
        std::abs(cross2((line.to - line.from).normalized(),
                        (work().lines[*there].to - work().lines[*there].from).normalized())) < 1e-6)
      return Error{{"work.order/there", Millimetres{middle.x() - m_corner.x()}}, ""};
    work().lines.push_back(std::move(line));
    if (!*own) foldWithItsRow(work().lines.size() - 1);
    return {};
  }

  /// Scores in one row fold together. Of what nothing was said goes as the others do, or, in a
  /// base, with the card once the row runs from edge to edge.
  void foldWithItsRow(std::size_t line) {
    auto& lines = work().lines;
    const auto row = rowOf(work(), line);
    const auto told =
        std::ranges::find_if(row, [&](std::size_t k) { return lines[k].moves.has_value(); });
    if (told != row.end())
      lines[line].moves = lines[*told].moves;
    else if (m_sheet.base && isFromEdgeToEdge(work(), row))
      for (const std::size_t k : row)
        lines[k].moves = FoldMoves();
  }

  /// "folded A": as it was folded by hand before the piece was glued.
  Result<bool> folded(WorkLine& line) {
    if (!m_in.take("folded")) return false;
    const auto angle = m_in.angle_deg();
    if (!angle) return lost("angle");
    line.folded_deg = *angle;
    return true;
  }

  /// "from L to L": the stretch of an upright or level line.
  Result<void> shorten(WorkLine& line) {
    m_in.take("from");
    const auto a = m_in.length();
    if (!a) return lost("length");
    if (!m_in.take("to")) return lost("to");
    const auto b = m_in.length();
    if (!b) return lost("length");
    const int axis =
        std::abs(line.to.x() - line.from.x()) > std::abs(line.to.y() - line.from.y()) ? 0 : 1;
    const auto at = [&](double place) {
      const double share =
          (place + m_corner[axis] - line.from[axis]) / (line.to[axis] - line.from[axis]);
      return Vec2(line.from + share * (line.to - line.from));
    };
    const Vec2 from = at(*a), to = at(*b);
    line.from = from, line.to = to;
    return {};
  }

  Result<void> score() {
    const bool level = m_in.take("across");
    if (!level)
      if (const auto from = point()) {
        if (!m_in.take("to")) return lost("to");
        const auto to = point();
        if (!to) return lost("x,y");
        return addScore(*from, *to);
      }
    do {
      const auto low = m_in.length();
      if (!low) return lost("length");
      auto line =
          level ? alongAt(work(), *low + m_corner.y()) : acrossAt(work(), *low + m_corner.x());
      if (m_in.take(">")) {
        const auto high = m_in.length();
        if (!high) return lost("length");
        const auto other =
            level ? alongAt(work(), *high + m_corner.y()) : acrossAt(work(), *high + m_corner.x());
        if (line && other) line->second = other->second;
        if (!other) line.reset();
      }
      if (!line) return Error{{"work.score-outside", Millimetres{*low}}, ""};
      if (auto added = addScore(line->first, line->second); !added) return added;
    } while (m_in.take(","));
    return {};
  }

  Result<void> cut() {
    auto from = point();
    if (!from) return lost("x,y");
    do {
      if (!m_in.take("to")) return lost("to");
      const auto to = point();
      if (!to) return lost("x,y");
      work().lines.push_back({Kind::Cut, *from, *to});
      from = to;
    } while (!m_in.atEnd());
    return {};
  }

  Result<void> opening() {
    auto made = drawnShapeIn(m_in, work());
    if (!made) return made.error();
    work().windows.push_back(std::move(made).value());
    return {};
  }

  Result<void> reverse() {
    double at[4] = {};
    static constexpr std::string_view kBetween[] = {"to", "between", "and"};
    for (std::size_t k = 0; k < 4; ++k) {
      if (k > 0 && !m_in.take(kBetween[k - 1])) return lost(kBetween[k - 1]);
      const auto length = m_in.length();
      if (!length) return lost("length");
      at[k] = *length + m_corner[k < 2 ? 0 : 1];
    }
    return keep(withReversed(work(), at[0], at[1], at[2], at[3]));
  }

  Result<void> tab() {
    std::optional<std::size_t> base;
    if (m_in.take("at")) {
      const auto at = point();
      if (!at) return lost("x,y");
      base = edgeAt(work(), *at, kNearEdge_mm);
    } else {
      const auto edge = sideIn(m_in);
      if (!edge) return lost("left, right, bottom, top, at");
      base = edgeOnSide(work().outline, *edge);
    }
    if (!base) return Error{"sheet.no-edge", ""};
    const auto depth = m_in.length();
    if (!depth) return lost("length");
    const auto k = kind();
    if (!k) return lost("valley, mountain");
    double bevel_deg = starting::kTabBevel_deg;
    if (m_in.take("bevel")) {
      const auto angle = m_in.angle_deg();
      if (!angle || !(*angle >= 0 && *angle <= kMostBevel_deg)) return lost("0 ... 80");
      bevel_deg = *angle;
    }
    if (auto added = keep(withTab(work(), *base, *depth, *k, bevel_deg)); !added) return added;
    auto said = moves(work().lines.back().moves);
    return said ? Result<void>() : said.error();
  }

  Result<void> corners() {
    if (!m_in.take("round")) return lost("round");
    const auto radius = m_in.length();
    if (!radius) return lost("length");
    return keep(withRoundCorners(work(), *radius));
  }

  Result<void> corner() {
    if (!m_in.take("at")) return lost("at");
    const auto at = m_in.point();
    if (!at) return lost("x,y");
    const Vec2 by = *at - m_corner;
    PieceWork& sheet = work();
    eachPoint(sheet, [&](Vec2& p) { p += by; });
    if (m_sheet.ground) *m_sheet.ground += by;
    return {};
  }

  Result<std::size_t> line() { return lineMeant(work(), m_in, m_corner); }

  Result<void> turn() {
    if (m_in.take("over")) {
      const Box2 box = boundsOf(work().outline);
      if (m_sheet.ground) m_sheet.ground->x() = box.low.x() + box.high.x() - m_sheet.ground->x();
      return keep(checked(turnedOver(work())));
    }
    const auto which = line();
    return which ? keep(withLineTurned(work(), *which)) : which.error();
  }
  Result<void> erase() {
    const auto which = line();
    return which ? keep(withLineRemoved(work(), *which)) : which.error();
  }
  Result<void> move() {
    const auto which = line();
    if (!which) return which.error();
    if (!m_in.take("to")) return lost("to");
    const auto place = m_in.length();
    if (!place) return lost("length");
    return keep(withScoreMoved(work(), *which, *place, m_in.take("carrying")));
  }
  Result<void> fold() {
    const auto which = line();
    if (!which) return which.error();
    WorkLine& line = work().lines[*which];
    const auto said = moves(line.moves);
    if (!said) return said.error();
    const auto start = folded(line);
    if (!start) return start.error();
    if (*said)
      for (const std::size_t k : rowOf(work(), *which))
        work().lines[k].moves = line.moves;
    return *said || *start ? Result<void>() : lost("free, held, lifted, opens, folded");
  }

  /// A joint of any kind: where on the sheet, on which face, where there, and its numbers.
  Result<void> joint(std::size_t kind) {
    PieceJoint made;
    made.kind = changedTo(kind, made.kind);
    const auto at = point();
    if (!at) return lost("x,y");
    made.at = *at;
    if (!m_in.take("on")) return lost("on");
    made.on = m_in.key();
    if (made.on.empty()) return lost("card/page-a");
    const bool byNumbers = m_in.take("at");
    if (byNumbers) {
      const auto to = m_in.point(); // on the face: from the line on which that stands
      if (!to) return lost("x,y");
      made.to = *to;
    }
    if (auto ruled = rules(made); !ruled) return ruled;
    if (!byNumbers && made.rules.empty())
      return lost("at, left, right, bottom, top, edge, point, "
                  "centred, spaced, level, mirrored");
    const auto numbers = numbersOf(made.kind);
    for (;;) {
      if (bool* byFace = byFaceOf(made.kind); byFace && m_in.take("by")) {
        *byFace = m_in.take("face");
        if (!*byFace && !m_in.take("back")) return lost("face, back");
        continue;
      }
      if (auto* glue = std::get_if<given::Glue>(&made.kind); glue && m_in.take("only")) {
        glue->area = points();
        if (glue->area.size() < 3) return lost("x,y");
        continue;
      }
      const auto number = std::ranges::find_if(
          numbers, [&](const JointNumber& n) { return m_in.take(jointWord(n.key)); });
      if (number == numbers.end()) break;
      const auto value = number->isLength() ? m_in.length() : m_in.angle_deg();
      if (!value) return lost(number->isLength() ? "length" : "angle");
      *number->value = *value;
    }
    work().joints.push_back(std::move(made));
    return {};
  }

  /// By what rules a joint is placed, if any.
  Result<void> rules(PieceJoint& made) {
    do {
      auto rule = ruleIn(m_in, m_corner);
      if (!rule) return rule.error();
      if (!*rule) break;
      made.rules.push_back(**rule);
    } while (m_in.take("and"));
    return {};
  }

  Result<void> loosen() {
    const auto at = point();
    if (!at) return lost("x,y");
    const PieceSheet parts(work());
    const std::size_t face = parts.faceAt(*at);
    const auto gone = std::erase_if(
        work().joints, [&](const PieceJoint& j) { return parts.faceAt(j.at) == face; });
    return gone > 0 ? Result<void>() : Error{"sheet.no-joint", ""};
  }

  Result<void> glued() {
    const auto at = point();
    if (!at) return lost("x,y");
    Polygon area;
    if (!m_in.take("all")) {
      if (!m_in.take("only")) return lost("only, all");
      area = points();
      if (area.size() < 3) return lost("x,y");
    }
    const PieceSheet parts(work());
    const std::size_t face = parts.faceAt(*at);
    bool any = false;
    for (PieceJoint& joint : work().joints)
      if (auto* glue = std::get_if<given::Glue>(&joint.kind);
          glue && parts.faceAt(joint.at) == face)
        glue->area = area, any = true;
    return any ? Result<void>() : Error{"sheet.no-joint", ""};
  }

  Result<void> ground() {
    m_sheet.ground = point();
    return m_sheet.ground ? Result<void>() : lost("x,y");
  }

  static constexpr double kLeastSheet_mm = 1, kMostBevel_deg = 80;
  static constexpr double kNearEdge_mm = 0.5; ///< how near a point must be named to an edge
  SheetInWork m_sheet;
  SheetScanner m_in;
  Vec2 m_corner; ///< from which places are read
};

} // namespace

Result<SheetInWork> workedBy(const SheetInWork& sheet, std::string_view sentence, LengthUnit unit) {
  SheetInWork made = sheet;
  for (bool more = true; more;) {
    const std::size_t end = sentence.find(';');
    more = end != std::string_view::npos;
    auto next = Sentence(made, sentence.substr(0, end), unit).run();
    if (!next) return next;
    made = std::move(next).value();
    if (more) sentence.remove_prefix(end + 1);
  }
  return made;
}

} // namespace hinge
