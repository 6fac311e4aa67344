// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/piece.h"
#include "core/structures/common.h"
#include "core/structures/piece_joints.h"
#include "core/structures/piece_rows.h"
#include "core/structures/piece_sheet.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <numeric>

// Free piece: an outline with scores, cuts and openings of the user's own, joined to panels that
// are there already by glue, slots, pivots, slides, bands. There is no closed form for it: the
// motion engine puts it together from mountains and valleys.

namespace hinge {
namespace {

class PieceBuild {
public:
  PieceBuild(const RecipeInput& in, AssemblyBuilder& builder)
      : m_in(in), m_work(*in.item.work), m_builder(builder), m_sheet(m_work) {}

  Result<void> run() {
    for (const auto& [line, stretch] : m_sheet.parts.loose)
      if (line < m_work.lines.size() && m_work.lines[line].kind != WorkLine::Kind::Cut)
        return Error{
            {"work.score-ends", Millimetres{stretch.second.x()}, Millimetres{stretch.second.y()}},
            m_in.item.id.text()};
    for (const PieceJoint& joint : m_work.joints)
      if (!m_sheet.hasPaper(joint.at))
        return Error{{"work.joint-outside", Text("joint." + std::string(jointKey(joint.kind))),
                      Millimetres{joint.at.x()}, Millimetres{joint.at.y()}},
                     m_in.item.id.text()};
    if (auto made = panels(); !made) return made;
    folds();
    if (auto whole = oneSheet(); !whole) return whole;
    for (std::size_t k = 0; k < m_work.joints.size(); ++k)
      if (auto joined =
              joinPiece(m_in, m_builder, m_work.joints[k], k + 1, panelAt(m_work.joints[k].at));
          !joined)
        return joined;
    strap();
    place();
    return m_builder.status();
  }

private:
  bool glued(std::size_t face) const {
    return std::ranges::any_of(m_work.joints, [&](const PieceJoint& j) {
      return is<given::Glue>(j) && m_sheet.faceAt(j.at) == face;
    });
  }
  std::size_t foldsOf(std::size_t face) const {
    return static_cast<std::size_t>(
        std::ranges::count_if(m_sheet.parts.borders, [&](const auto& b) {
          return isFold(b) && (b.left == face || b.right == face);
        }));
  }
  bool isFold(const Subdivision::Border& b) const {
    return b.line < m_work.lines.size() && m_work.lines[b.line].kind != WorkLine::Kind::Cut &&
           m_sheet.paper[b.left] && m_sheet.paper[b.right];
  }

  Result<void> panels() {
    m_piece = m_builder.piece("piece", "piece");
    int number = 0;
    for (std::size_t f = 0; f < m_sheet.parts.faces.size(); ++f) {
      m_panels.push_back({});
      if (!m_sheet.paper[f]) continue;
      const Polygon& face = m_sheet.parts.faces[f];
      const bool tab = glued(f) && foldsOf(f) == 1 && m_sheet.parts.faces.size() > 1 &&
                       convexParts(face).size() == 1;
      ++number;
      m_panels.back() =
          m_builder.panel(m_piece, fmt::format("panel-{}", number), Text("panel", number),
                          tab ? PanelUse::Tab : PanelUse::Wall, face);
      for (std::size_t hole : m_sheet.holes)
        if (contains(face, m_work.windows[hole].front()))
          m_builder.cutWindow(m_panels.back(), m_work.windows[hole]);
      const Box2 box = boundsOf(face);
      m_builder.faceSeats(m_panels.back(), box.low, {box.high.x(), box.low.y()});
    }
    for (const auto& [line, stretch] : m_sheet.parts.loose)
      m_builder.feature(m_piece, Cut{panelAt(0.5 * (stretch.first + stretch.second)), stretch.first,
                                     stretch.second});
    return {};
  }

  void folds() {
    std::vector<int> used(m_work.lines.size(), 0);
    for (const auto& border : m_sheet.parts.borders) {
      if (!isFold(border)) continue;
      const int again = used[border.line]++;
      const std::string number = fmt::format(
          "{}{}", border.line + 1, again ? std::string(1, static_cast<char>('a' + again)) : "");
      const bool valley = m_work.lines[border.line].kind == WorkLine::Kind::Valley;
      const PanelIndex left = m_panels[border.left], right = m_panels[border.right];
      const FoldIndex fold = m_builder.fold(
          "score-" + number, Text("score", number), left, right, border.from, border.to,
          valley ? FoldSense::Valley : FoldSense::Mountain, valley ? kPi : -kPi);
      m_builder.assembly().folds[fold].shutKnown = false;
      const auto use = [&](PanelIndex p) { return m_builder.assembly().panels[p].use; };
      if (use(left) == PanelUse::Tab || use(right) == PanelUse::Tab) continue;
      const Seat onFace =
          seatOnFold(m_builder, "score-" + number, Text("score-of", number, m_in.name()), left,
                     right, border.from, border.to, valley ? 0.0 : 2 * kPi);
      m_builder.seat("score-" + number + "-back", Text("from-behind", onFace.label),
                     onFace.sides[1], onFace.sides[0], onFace.length_mm,
                     2 * kPi - onFace.shutOpening_rad);
    }
  }

  /// Cuts may not part the piece in two.
  Result<void> oneSheet() const {
    std::vector<std::size_t> group(m_panels.size());
    std::iota(group.begin(), group.end(), 0u);
    const auto root = [&](std::size_t f) {
      while (group[f] != f)
        f = group[f];
      return f;
    };
    for (const auto& border : m_sheet.parts.borders)
      if (isFold(border)) group[root(border.left)] = root(border.right);
    std::optional<std::size_t> first;
    for (std::size_t f = 0; f < m_panels.size(); ++f) {
      if (!m_sheet.paper[f]) continue;
      if (first && root(f) != root(*first)) return Error{"work.in-two", m_in.item.id.text()};
      first = f;
    }
    return {};
  }

  PanelIndex panelAt(const Vec2& at) const {
    const std::size_t face = m_sheet.faceAt(at);
    return face < m_panels.size() ? m_panels[face] : PanelIndex();
  }

  /// A piece closed on itself by its end, with two scores that run the same way, that lies on
  /// something else with a joint of one panel: it goes round what lies there.
  void strap() {
    const Assembly& assembly = m_builder.assembly();
    const auto isOwn = [&](PanelIndex p) { return assembly.panels[p].piece == m_piece; };
    const auto faceOf = [&](const PieceJoint& j) {
      return assembly.findSeat(j.on)->sides[0].panel;
    };
    const auto closes = [&](const PieceJoint& j) { return is<given::Glue>(j) && isOwn(faceOf(j)); };
    if (std::ranges::none_of(m_work.joints, closes)) return;
    std::vector<FoldIndex> folds;
    for (FoldIndex f : assembly.folds.indices())
      if (isOwn(assembly.folds[f].left)) folds.push_back(f);
    if (folds.size() != 2) return;
    const Fold &a = assembly.folds[folds[0]], &b = assembly.folds[folds[1]];
    const Vec2 u = (a.to - a.from).normalized(), v = (b.to - b.from).normalized();
    if (std::abs(cross2(u, v)) > 1e-6) return;
    for (const PieceJoint& joint : m_work.joints) {
      if (!liesOn(joint.kind) || isOwn(faceOf(joint))) continue;
      const PanelIndex panel = panelAt(joint.at);
      if (assembly.foldsOf(panel).size() == 2)
        m_builder.feature(m_piece, Strap{panel, faceOf(joint), {folds[0], folds[1]}});
    }
  }

  void place() {
    std::vector<PanelIndex> moving, all;
    for (std::size_t f = 0; f < m_panels.size(); ++f) {
      if (!m_sheet.paper[f]) continue;
      all.push_back(m_panels[f]);
      if (!glued(f)) moving.push_back(m_panels[f]);
    }
    m_builder.placementByRings(m_in.seat, moving.empty() ? all : moving);
    // Widths stand on the lower edge, from score to score.
    const Box2 box = boundsOf(m_work.outline);
    double from = box.low.x();
    const auto widths = panelWidths_mm(m_work);
    const auto points = panelPoints(m_work);
    const auto marks = scoreMarks(m_work);
    for (std::size_t k = 0; k < std::min(widths.size(), kMostPanels); ++k) {
      const std::size_t face = m_sheet.faceAt(points[k]);
      const double y = marks.empty() ? box.low.y() : lowEnd(marks[k == 0 ? 0 : k - 1]).y();
      if (face < m_panels.size())
        m_builder.dimension(std::string(panelKey(k)), m_panels[face], {from, y},
                            {from + widths[k], y});
      from += widths[k];
    }
  }

  Vec2 lowEnd(const ScoreMark& mark) const {
    const WorkLine& line = m_work.lines[mark.line];
    return line.from.y() <= line.to.y() ? line.from : line.to;
  }

  const RecipeInput& m_in;
  const PieceWork& m_work;
  AssemblyBuilder& m_builder;
  PieceSheet m_sheet;
  PieceIndex m_piece;
  std::vector<PanelIndex> m_panels; ///< per face; invalid for openings
};

Result<void> build(const RecipeInput& in, AssemblyBuilder& builder) {
  if (!in.item.work) return Error{"work.missing", in.item.id.text()};
  return PieceBuild(in, builder).run();
}

std::vector<LinearClosure> closures(double) {
  return {};
}
std::vector<MendDirection> mendDirections() {
  return {{{{"position", 1}}}};
}
ParameterValues fit(const Seat&, const Assembly&, const Settings&) {
  return startingValues(pieceRows());
}

Sketch sketch() {
  using L = Sketch::Line;
  Sketch s;
  const double xs[] = {0.08, 0.24, 0.5, 0.76, 0.92};
  for (double y : {0.3, 0.7})
    s.lines.push_back({{0.08, y}, {0.92, y}, L::Use::Paper});
  for (double x : xs)
    s.lines.push_back(
        {{x, 0.3}, {x, 0.7}, x == xs[0] || x == xs[4] ? L::Use::Paper : L::Use::Fold});
  s.dimensions = {{"position", {0.08, 0.2}, {0.24, 0.2}, std::nullopt}};
  return s;
}

} // namespace

Vec2 alongFace(const Seat& seat, const SeatSide& face) {
  for (const SeatSide& side : seat.sides)
    if (side.panel == face.panel && seat.kind() != SeatKind::Face)
      return (face.toPiece.inverse() * side.toPiece).linear().col(1).head<2>();
  return Vec2::UnitX();
}

std::optional<PieceJoint> glueJoint(const Assembly& assembly, PanelIndex panel, const Iso3& toPanel,
                                    bool byFace, const Vec2& at) {
  const bool faceUp =
      (toPanel.linear()(2, 2) < 0) == byFace; // the side of the panel that takes the glue
  const std::string key = assembly.panels[panel].key;
  const Seat* front = assembly.findSeat(key);
  if (!front || front->kind() != SeatKind::Face) return std::nullopt;
  const bool frontIsFace = front->sides[0].toPiece.linear()(2, 2) > 0;
  const Seat* face = faceUp == frontIsFace ? front : assembly.findSeat(key + "-back");
  if (!face) return std::nullopt;
  const Iso3 onFace = face->sides[0].toPiece.inverse() * toPanel;
  PieceJoint joint;
  joint.on = face->key, joint.at = at;
  const auto tidy = [](double v) { return std::round(v * 1e9) / 1e9; };
  const Vec3 to = onFace * lift(at), x = onFace.linear().col(0);
  joint.to = {tidy(to.x()), tidy(to.y())};
  joint.kind = given::Glue{tidy(degrees(std::atan2(x.y(), x.x()))), byFace};
  return joint;
}

const StructureKind& pieceKind() {
  static const StructureKind kind{"piece",  pieceRows(),    kOnFolds | kOnFaces | kOnSpans,
                                  closures, mendDirections, build,
                                  fit,      sketch,         &pieceWays()};
  return kind;
}

} // namespace hinge
