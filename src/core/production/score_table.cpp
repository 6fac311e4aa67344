// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/score_table.h"
#include "core/geom/congruent.h"
#include "core/structures/names.h"
#include "core/units/mark.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <map>

namespace hinge {
namespace {

/// Lines that are less apart are one line.
constexpr double kSameLine_mm = 0.01;

bool sameLines(const FlatPiece& one, const FlatPiece& other, const Congruence& lay) {
  if (one.lines.size() != other.lines.size()) return false;
  constexpr double kNear_mm = 0.05;
  return std::ranges::all_of(one.lines, [&](const FlatLine& line) {
    if (line.closed) return true; // rings have been compared as outlines
    const Vec2 from = lay(line.corners.front()), to = lay(line.corners.back());
    return std::ranges::any_of(other.lines, [&](const FlatLine& candidate) {
      if (candidate.kind != line.kind || candidate.closed) return false;
      const Vec2 &a = candidate.corners.front(), &b = candidate.corners.back();
      return ((a - from).norm() < kNear_mm && (b - to).norm() < kNear_mm) ||
             ((a - to).norm() < kNear_mm && (b - from).norm() < kNear_mm);
    });
  });
}

/// One piece; axis 0 stands for upright lines, whose places are read along x, axis 1 for level
/// ones.
class Tabulating {
public:
  Tabulating(const Assembly& assembly, const Design& design, const FlatPiece& piece,
             const Bench& bench)
      : m_assembly(assembly), m_design(design), m_piece(piece), m_bench(bench),
        m_paper(paperOf(piece)), m_low(piece.bounds.low), m_size(piece.bounds.size()) {}

  PieceTable run() {
    PieceTable table;
    table.piece = m_piece.piece, table.paper = m_piece.paper, table.size = m_size;
    for (int axis : {0, 1})
      straight(axis, table);
    slanted(table);
    cuts(table);
    notes(table);
    return table;
  }

private:
  void straight(int axis, PieceTable& table) const {
    std::map<std::pair<long, LineKind>, std::vector<const FlatLine*>> settings;
    for (const FlatLine& line : m_piece.lines) {
      if (line.kind == LineKind::Cut) continue;
      const Vec2 way = line.corners.back() - line.corners.front();
      if (std::abs(way[axis]) < kSameLine_mm)
        settings[{std::lround((line.corners.front()[axis] - m_low[axis]) / kSameLine_mm),
                  line.kind}]
            .push_back(&line);
    }
    std::vector<ScoreSetting> all;
    for (const auto& [at, lines] : settings)
      all.push_back(setting(axis, at.second, lines));
    std::ranges::stable_sort(all, {}, &ScoreSetting::first_mm);
    double before = 0;
    for (ScoreSetting& one : all) {
      one.step_mm = one.first_mm - before, before = one.first_mm;
      one.fromBack = m_bench.sides == ScoreSides::Both && one.kind == LineKind::Mountain;
      // Turned over about an upright axis, what was right is left.
      one.fromOther = axis == 0 && one.fromBack;
    }
    splitLong(axis, all);
    table.scores.insert(table.scores.end(), all.begin(), all.end());
  }

  ScoreSetting setting(int axis, LineKind kind, const std::vector<const FlatLine*>& lines) const {
    ScoreSetting one;
    one.way = axis == 0 ? ScoreSetting::Way::Upright : ScoreSetting::Way::Level;
    one.kind = kind;
    const double at = lines.front()->corners.front()[axis] - m_low[axis];
    const bool right = axis == 0 && m_bench.first == FirstEdge::Right;
    one.first_mm = right ? m_size[axis] - at : at, one.other_mm = m_size[axis] - one.first_mm;
    const int along = 1 - axis;
    for (const FlatLine* line : lines) {
      const auto [low, high] =
          std::minmax({line->corners.front()[along], line->corners.back()[along]});
      one.stretches.push_back({low - m_low[along], high - m_low[along]});
    }
    std::ranges::sort(one.stretches, {}, &Stretch::from_mm);
    if (m_bench.length == ScoreLength::Whole) spanOpenings(axis, at + m_low[axis], one.stretches);
    std::vector<Stretch> joined;
    for (const Stretch& part : one.stretches)
      if (!joined.empty() && part.from_mm <= joined.back().to_mm + kSameLine_mm)
        joined.back().to_mm = std::max(joined.back().to_mm, part.to_mm);
      else
        joined.push_back(part);
    one.stretches = std::move(joined);
    one.whole = one.stretches.size() == 1 && one.stretches.front().from_mm < kSameLine_mm &&
                one.stretches.front().to_mm > m_size[along] - kSameLine_mm;
    return one;
  }

  /// Joins neighbours where the line between them runs over no paper: an opening, or beside it.
  void spanOpenings(int axis, double at, std::vector<Stretch>& parts) const {
    const int along = 1 - axis;
    const auto bare = [&](double from, double to) {
      constexpr int kLooks = 16;
      for (int k = 1; k < kLooks; ++k) {
        Vec2 p;
        p[axis] = at, p[along] = m_low[along] + from + (to - from) * k / kLooks;
        if (contains(m_paper, p, -kSameLine_mm) && distanceToOutline(m_paper, p) > kSameLine_mm)
          return false;
      }
      return true;
    };
    for (std::size_t k = 0; k + 1 < parts.size(); ++k)
      if (bare(parts[k].to_mm, parts[k + 1].from_mm)) parts[k].to_mm = parts[k + 1].from_mm;
    if (bare(0, parts.front().from_mm)) parts.front().from_mm = 0;
    if (bare(parts.back().to_mm, m_size[along])) parts.back().to_mm = m_size[along];
  }

  /// A piece that is longer than the board gets its mid score first, the others from both ends.
  void splitLong(int axis, std::vector<ScoreSetting>& all) const {
    if (m_bench.board_mm <= 0 || m_size[axis] <= m_bench.board_mm || all.empty()) return;
    const auto middle = std::ranges::min_element(all, {}, [&](const ScoreSetting& one) {
      return std::abs(one.first_mm - 0.5 * m_size[axis]);
    });
    middle->firstOfLong = true;
    for (ScoreSetting& one : all)
      if (one.first_mm > m_bench.board_mm) one.fromOther = true;
  }

  void slanted(PieceTable& table) const {
    for (const FlatLine& line : m_piece.lines) {
      const Vec2 from = line.corners.front() - m_low, to = line.corners.back() - m_low;
      const Vec2 way = to - from;
      if (line.kind == LineKind::Cut || std::abs(way.x()) < kSameLine_mm ||
          std::abs(way.y()) < kSameLine_mm)
        continue;
      ScoreSetting one;
      one.way = ScoreSetting::Way::Slanted, one.kind = line.kind;
      one.from = from.x() <= to.x() ? from : to, one.to = from.x() <= to.x() ? to : from;
      one.fromBack = m_bench.sides == ScoreSides::Both && line.kind == LineKind::Mountain;
      one.length_mm = way.norm();
      one.angle_deg = degrees(std::atan2(one.to.y() - one.from.y(), one.to.x() - one.from.x()));
      table.scores.push_back(one);
    }
  }

  void cuts(PieceTable& table) const {
    const Polygon& rim = m_paper.rim;
    table.plainRectangle =
        std::abs(signedArea_mm2(rim) - m_size.x() * m_size.y()) < 1e-3 * m_size.norm();
    // Curves have more corners than anybody marks: they are cut along the print.
    constexpr std::size_t kMostCorners = 24;
    if (!table.plainRectangle && rim.size() <= kMostCorners)
      for (std::size_t k = 0; k < rim.size(); ++k) {
        const Vec2 &before = rim[(k + rim.size() - 1) % rim.size()], &corner = rim[k],
                   &next = rim[(k + 1) % rim.size()];
        if (distanceToSegment(corner, before, next) > kSameLine_mm)
          table.cuts.push_back({CutMark::What::Corner, corner - m_low, corner - m_low});
      }
    for (const Polygon& hole : m_paper.holes) {
      const Box2 box = boundsOf(hole);
      table.cuts.push_back({CutMark::What::Opening, box.low - m_low, box.high - m_low});
    }
    for (const Edge& cut : wholeCuts())
      table.cuts.push_back({CutMark::What::Slit, cut.first - m_low, cut.second - m_low});
    if (!table.plainRectangle && rim.size() <= kMostCorners) trims(table);
    for (PanelIndex p : m_assembly.pieces[m_piece.piece].panels)
      if (m_assembly.panels[p].use == PanelUse::Tab) tab(p, table);
  }

  /// The cuts inside the piece as a knife makes them: what goes on in one line, whatever panels it
  /// passes, is one cut.
  std::vector<Edge> wholeCuts() const {
    std::vector<Edge> cuts;
    for (const FlatLine& line : m_piece.lines) {
      if (line.kind != LineKind::Cut || line.closed) continue;
      Edge cut{line.corners.front(), line.corners.back()};
      for (auto other = cuts.begin(); other != cuts.end();) {
        const auto longer = asOne(cut, *other);
        if (!longer) {
          ++other;
          continue;
        }
        cut = *longer;
        cuts.erase(other), other = cuts.begin();
      }
      cuts.push_back(cut);
    }
    return cuts;
  }

  /// Two stretches of one line that touch.
  static std::optional<Edge> asOne(const Edge& a, const Edge& b) {
    const Vec2 along = (a.second - a.first).normalized();
    for (const Vec2& end : {b.first, b.second})
      if (std::abs(cross2(along, Vec2(end - a.first))) > kSameLine_mm) return std::nullopt;
    const auto place = [&](const Vec2& p) { return along.dot(p - a.first); };
    const auto [low, high] = std::minmax({place(b.first), place(b.second)});
    const double length = (a.second - a.first).norm();
    if (low > length + kSameLine_mm || high < -kSameLine_mm) return std::nullopt;
    return Edge{a.first + std::min(0.0, low) * along, a.first + std::max(length, high) * along};
  }

  /// Rectangles that are missing in the corners of the sheet.
  void trims(PieceTable& table) const {
    const Polygon& rim = m_paper.rim;
    for (std::size_t k = 0; k < rim.size(); ++k) {
      const std::array ends{rim[(k + rim.size() - 1) % rim.size()] - m_low,
                            rim[(k + 1) % rim.size()] - m_low};
      const Vec2 inner = rim[k] - m_low;
      // On one end's side of the sheet lies the place, on the other's the depth.
      for (std::size_t e : {0u, 1u}) {
        const Vec2 &along = ends[e], &down = ends[1 - e];
        const auto onSide = [&](double at, double size) {
          return std::abs(at) < kSameLine_mm || std::abs(at - size) < kSameLine_mm;
        };
        const bool square = std::abs(along.x() - inner.x()) < kSameLine_mm &&
                            std::abs(down.y() - inner.y()) < kSameLine_mm;
        if (!square || !onSide(along.y(), m_size.y()) || !onSide(down.x(), m_size.x())) continue;
        const Vec2 corner(down.x(), along.y());
        if ((corner - inner).cwiseAbs().minCoeff() < kSameLine_mm) continue;
        table.cuts.push_back({CutMark::What::Trim, inner, corner});
        tell(table, {inner, along, down});
      }
    }
  }

  /// These corners need no line of their own.
  static void tell(PieceTable& table, const std::vector<Vec2>& corners) {
    for (CutMark& cut : table.cuts)
      if (cut.what == CutMark::What::Corner && std::ranges::any_of(corners, [&](const Vec2& p) {
            return (p - cut.from).norm() < kSameLine_mm;
          }))
        cut.told = true;
  }

  void tab(PanelIndex panel, PieceTable& table) const {
    const auto folds = m_assembly.foldsOf(panel);
    if (folds.empty()) return;
    const Fold& fold = m_assembly.folds[*folds.begin()];
    const Vec2 along = (fold.to - fold.from).normalized(), across(-along.y(), along.x());
    const Region& outline = m_assembly.panels[panel].outline;
    CutMark mark{CutMark::What::Tab, fold.from - m_low, fold.to - m_low};
    for (const Vec2& p : outline.rim)
      mark.depth_mm = std::max(mark.depth_mm, std::abs(across.dot(p - fold.from)));
    // The edges that leave the fold at its ends lean in by the bevel.
    const auto bevelAt = [&](const Vec2& end) {
      double bevel_deg = 0;
      for (const Edge& edge : edgesOf(outline))
        if ((edge.first - end).norm() < kSameVertex_mm ||
            (edge.second - end).norm() < kSameVertex_mm) {
          const Vec2 way = (edge.second - edge.first).normalized();
          if (std::abs(way.dot(across)) > 1e-6)
            bevel_deg = degrees(std::atan(std::abs(way.dot(along) / way.dot(across))));
        }
      return bevel_deg;
    };
    mark.bevel_deg = bevelAt(fold.to);
    mark.letter = panelLetter(m_assembly, panel);
    table.cuts.push_back(mark);
    constexpr double kAlike_deg = 0.05;
    if (outline.rim.size() != 4 || std::abs(bevelAt(fold.from) - mark.bevel_deg) > kAlike_deg)
      return;
    std::vector<Vec2> corners;
    for (const Vec2& p : outline.rim)
      corners.push_back(p - m_low);
    tell(table, corners);
  }

  void notes(PieceTable& table) const {
    const auto note = [&](bool when, PieceNote what) {
      if (when) table.notes.push_back(what);
    };
    note(m_bench.board_mm > 0 && std::ranges::any_of(table.scores, &ScoreSetting::firstOfLong),
         PieceNote::LongerThanBoard);
    note(m_bench.trimmer_mm > 0 && m_size.minCoeff() > m_bench.trimmer_mm,
         PieceNote::LargerThanTrimmer);
    const Paper* paper = m_design.findPaper(m_piece.paper);
    note(paper && paper->thickness_mm > m_bench.thickest_mm, PieceNote::TooThick);
    note(m_bench.grid_mm > 0 &&
             std::ranges::any_of(table.scores,
                                 [&](const ScoreSetting& one) {
                                   return one.way != ScoreSetting::Way::Slanted &&
                                          !nearestMark(one.first_mm, m_bench.grid_mm).exact();
                                 }),
         PieceNote::OffGrid);
  }

  const Assembly& m_assembly;
  const Design& m_design;
  const FlatPiece& m_piece;
  const Bench& m_bench;
  Region m_paper;
  Vec2 m_low, m_size;
};

} // namespace

std::string_view keyOf(PieceNote note) {
  switch (note) {
  case PieceNote::LongerThanBoard: return "longer-than-board";
  case PieceNote::LargerThanTrimmer: return "larger-than-trimmer";
  case PieceNote::TooThick: return "too-thick";
  case PieceNote::OffGrid: return "off-grid";
  }
  return "";
}

std::vector<PieceTable> scoreTables(const Assembly& assembly, const Design& design,
                                    const std::vector<FlatPiece>& pieces, const Bench& bench) {
  std::vector<PieceTable> tables;
  std::vector<const FlatPiece*> first;
  for (const FlatPiece& piece : pieces) {
    const Region paper = paperOf(piece);
    bool known = false;
    for (std::size_t t = 0; t < tables.size() && !known; ++t) {
      if (tables[t].paper != piece.paper) continue;
      for (const Congruence& lay : congruences(paper, paperOf(*first[t]))) {
        // A pattern that runs one way must do so on each of them.
        const Paper* own = design.findPaper(piece.paper);
        if (own && own->way != PatternWay::None && std::abs(lay.turn_rad) > 1e-6) continue;
        if (!sameLines(piece, *first[t], lay)) continue;
        known = true;
        (lay.mirrored ? tables[t].mirrored : tables[t].same).push_back(piece.piece);
        break;
      }
    }
    if (known) continue;
    tables.push_back(Tabulating(assembly, design, piece, bench).run());
    tables.back().same.push_back(piece.piece);
    tables.back().letter = letters(static_cast<int>(tables.size()), 'A');
    first.push_back(&piece);
  }
  for (PieceTable& table : tables) {
    table.handed = !table.mirrored.empty() && !design.paperNamed(table.paper).twoSided();
  }
  return tables;
}

} // namespace hinge
