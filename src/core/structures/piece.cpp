// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/piece.h"
#include "core/pieces/joining.h"
#include "core/pieces/worked_piece.h"
#include "core/structures/common.h"
#include "core/structures/piece_rows.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>
#include <fmt/format.h>

// Free piece: an outline with scores, cuts and openings of the user's own, joined to panels that
// are there already by glue, slots, pivots, slides, bands. There is no closed form for it: the
// motion engine puts it together from mountains and valleys.

namespace hinge {
namespace {

class PieceBuild {
public:
  PieceBuild(const RecipeInput& in, AssemblyBuilder& builder)
      : m_in(in), m_work(*in.item.work), m_builder(builder) {}

  Result<void> run() {
    WorkedNames names;
    names.piece = "piece", names.label = "piece", names.fold = "score";
    names.place = m_in.item.id.text();
    names.panel = [](int number) {
      return std::pair{fmt::format("panel-{}", number), Text("panel", number)};
    };
    names.foldLabel = [](const std::string& number) { return Text("score", number); };
    names.seatLabel = [this](const std::string& number) {
      return Text("score-of", number, m_in.name());
    };
    auto made = WorkedPiece::make(m_work, names, m_builder);
    if (!made) return made.error();
    m_made = std::move(made).value();
    JoinedHow how{m_in.thickness_mm, names.place, 0,
                  [this](const SeatSide& face) {
                    return Vec2(m_in.value(pieceRows().front().key) * alongFace(m_in.seat, face));
                  },
                  m_in.faceThickness_mm};
    if (auto joined = joinPiece(m_builder, m_work, *m_made, how); !joined) return joined;
    const auto known = openWithTheCard();
    if (!known) return known.error();
    strap();
    place(*known);
    return m_builder.status();
  }

private:
  /// A piece closed on itself by its end, with two scores that run the same way, that lies on
  /// something else with a joint of one panel: it goes round what lies there.
  void strap() {
    const Assembly& assembly = m_builder.assembly();
    const auto isOwn = [&](PanelIndex p) { return assembly.panels[p].piece == m_made->piece(); };
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
      const PanelIndex panel = m_made->panelAt(joint.at);
      if (assembly.foldsOf(panel).size() == 2)
        m_builder.feature(m_made->piece(), Strap{panel, faceOf(joint), {folds[0], folds[1]}});
    }
  }

  /// Leaves of this piece that open with the card. They start from a panel of the base: of what
  /// hangs on other paper nobody knows beforehand where it is.
  Result<std::vector<PanelIndex>> openWithTheCard() {
    std::vector<PanelIndex> known;
    m_made->drive(m_builder.assembly(), false);
    const Assembly& assembly = m_builder.assembly();
    for (const auto& [index, line] : m_made->folds()) {
      const auto& moves = m_work.lines[line].moves;
      if (!moves || moves->held()) continue;
      if (known.empty())
        for (const auto& [panel, pose] : assembly.basePoses(0.5 * kPi))
          known.push_back(panel);
      if (std::ranges::find(known, assembly.folds[index].left) == known.end())
        return Error{{"work.moves/apart", assembly.folds[index].label},
                     fmt::format("{}.lines[{}]", m_in.item.id.text(), line)};
    }
    return known;
  }

  void place(const std::vector<PanelIndex>& known) {
    std::vector<PanelIndex> moving, all;
    const auto& panels = m_made->panels();
    for (std::size_t f = 0; f < panels.size(); ++f) {
      if (!panels[f].valid()) continue;
      all.push_back(panels[f]);
      const bool moves = std::ranges::find(known, panels[f]) == known.end();
      if (!m_made->glued(f) && moves) moving.push_back(panels[f]);
    }
    m_builder.placementByRings(m_in.seat, moving.empty() ? all : moving);
    // Widths stand on the lower edge, from score to score.
    const Box2 box = boundsOf(m_work.outline);
    double from = box.low.x();
    const auto widths = panelWidths_mm(m_work);
    const auto points = panelPoints(m_work);
    const auto marks = scoreMarks(m_work);
    for (std::size_t k = 0; k < std::min(widths.size(), kMostPanels); ++k) {
      const PanelIndex panel = m_made->panelAt(points[k]);
      const double y = marks.empty() ? box.low.y() : lowEnd(marks[k == 0 ? 0 : k - 1]).y();
      if (panel.valid())
        m_builder.dimension(std::string(panelKey(k)), panel, {from, y}, {from + widths[k], y});
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
  std::optional<WorkedPiece> m_made;
};

Result<void> buildPiece(const RecipeInput& in, AssemblyBuilder& builder) {
  if (!in.item.work) return Error{"work.missing", in.item.id.text()};
  return PieceBuild(in, builder).run();
}

std::vector<MendDirection> pieceMends() {
  return {{{{"position", 1}}}};
}
ParameterValues fitPiece(const Seat&, const Assembly&, const Settings&) {
  return startingValues(pieceRows());
}

Sketch pieceSketch() {
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
      return (inverseOf(face.toPiece) * side.toPiece).linear().col(1).head<2>();
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
  const Iso3 onFace = inverseOf(face->sides[0].toPiece) * toPanel;
  PieceJoint joint;
  joint.on = face->key, joint.at = at;
  const auto tidy = [](double v) { return std::round(v * 1e9) / 1e9; };
  const Vec3 to = onFace * lift(at), x = onFace.linear().col(0);
  joint.to = {tidy(to.x()), tidy(to.y())};
  joint.kind = given::Glue{tidy(degrees(std::atan2(x.y(), x.x()))), byFace};
  return joint;
}

const StructureKind& pieceKind() {
  static const StructureKind kind{
      "piece",    pieceRows(), kOnFolds | kOnFaces | kOnSpans | kOnCreases,
      noClosures, pieceMends,  buildPiece,
      fitPiece,   pieceSketch, &pieceWays()};
  return kind;
}

} // namespace hinge
