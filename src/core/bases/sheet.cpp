// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/base.h"
#include "core/pieces/joining.h"
#include "core/pieces/worked_piece.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <set>

// Sheets: a base as its maker scored, cut and joined it. Each sheet is worked like a free piece;
// what its maker says of a score (WorkLine::moves) makes it a drive. Panels that no drive reaches
// hang on the joints, as in free pieces.

namespace hinge {
namespace {

ParameterValues startingSheet(const CardBase&) {
  return {};
}

class SheetBuild {
public:
  SheetBuild(const CardBase& card, AssemblyBuilder& builder) : m_card(card), m_builder(builder) {}

  Result<void> run() {
    if (m_card.sheets.empty()) return Error{"sheet.none", "card.sheets"};
    for (std::size_t k = 0; k < m_card.sheets.size(); ++k)
      if (auto made = addSheet(k); !made) return made;
    if (auto status = m_builder.status(); !status) return status;
    if (auto stood = chooseGround(); !stood) return stood;
    return settle();
  }

private:
  Result<void> addSheet(std::size_t k) {
    const PieceWork& work = m_card.sheets[k];
    const std::string prefix = k == 0 ? "" : fmt::format("sheet-{}-", k + 1);
    const std::string piece = k == 0 ? "sheet" : fmt::format("sheet-{}", k + 1);
    const std::string foldRole = prefix + "fold", place = fmt::format("card.sheets[{}]", k);
    WorkedNames names;
    names.piece = piece, names.label = k == 0 ? Text("card") : Text("sheet", k + 1);
    if (k == 0) names.gutter = gutterOf(work);
    names.fold = foldRole, names.largeIsNoTab = true, names.place = place;
    names.foldLabel = [k](const std::string& number) {
      return k == 0 ? Text("fold", number) : Text("fold-of-sheet", number, k + 1);
    };
    names.seatLabel = names.foldLabel;
    names.panel = [this](int) {
      const std::string name = letters(++m_pages, 'a');
      return std::pair{"page-" + name, Text("page", name)};
    };
    auto made = WorkedPiece::make(work, names, m_builder);
    if (!made) return made.error();
    made->drive(m_builder.assembly(), true);
    for (std::size_t j = 0; j < work.joints.size(); ++j)
      if (!is<given::Glue>(work.joints[j]))
        return Error{"sheet.glue-only", fmt::format("{}.joints[{}]", place, j)};
    JoinedHow how;
    how.place = place, how.sheet = k;
    if (auto joined = joinPiece(m_builder, work, *made, how); !joined) return joined;
    m_made.push_back(std::move(*made));
    return {};
  }

  /// The face onto which all others that the maker moves are folded over, if there are several.
  std::optional<std::size_t> foldedOnto(const PieceSheet& sheet) const {
    const auto& lines = m_card.sheets.front().lines;
    std::set<std::size_t> moved;
    std::map<std::size_t, std::set<std::size_t>> onto; // folds by the face beside them
    for (const auto& border : sheet.parts.borders) {
      if (border.line >= lines.size() || !lines[border.line].moves) continue;
      const FoldMoves& moves = *lines[border.line].moves;
      if (moves.held()) continue;
      moved.insert(border.line);
      if (lines[border.line].kind == WorkLine::Kind::Valley && moves.shut_deg == 0)
        onto[border.left].insert(border.line), onto[border.right].insert(border.line);
    }
    for (const auto& [face, folds] : onto)
      if (folds.size() > 1 && folds == moved) return face;
    return std::nullopt;
  }

  /// The face of the first sheet that lies on the table. Without a word it is the one onto which
  /// the others fold, else the last leaf beside a fold of which the maker says how it moves, as in
  /// the other bases of leaves in a row.
  std::size_t groundFace(const PieceSheet& sheet) const {
    if (m_card.ground) return sheet.faceAt(*m_card.ground);
    if (const auto face = foldedOnto(sheet)) return *face;
    // Flaps and tabs are no leaves.
    constexpr double kLeaf = 0.4;
    const auto& faces = sheet.parts.faces;
    const auto area = [&](std::size_t f) { return sheet.paper[f] ? area_mm2(faces[f]) : 0.0; };
    const auto& lines = m_card.sheets.front().lines;
    std::vector<char> moved(faces.size(), 0);
    for (const auto& border : sheet.parts.borders)
      if (border.line < lines.size() && lines[border.line].moves)
        moved[border.left] = moved[border.right] = 1;
    const bool anyMoved = std::ranges::count(moved, 1) > 0;
    double largest = 0, farthest = -1e300;
    for (std::size_t f = 0; f < faces.size(); ++f)
      largest = std::max(largest, area(f));
    std::size_t last = faces.size();
    for (std::size_t f = 0; f < faces.size(); ++f)
      if (const double x = boundsOf(faces[f]).high.x();
          area(f) > kLeaf * largest && (moved[f] || !anyMoved) && x > farthest + kTouch_mm)
        farthest = x, last = f;
    return last;
  }

  /// As in the other bases the gutter is the moved fold beside what lies on the table, to the left
  /// of it where there is one.
  std::optional<std::size_t> gutterOf(const PieceWork& work) const {
    const PieceSheet sheet(work);
    const std::size_t ground = groundFace(sheet);
    std::optional<std::size_t> found;
    double least = 1e300;
    for (const auto& border : sheet.parts.borders) {
      if (border.left != ground && border.right != ground) continue;
      if (border.line >= work.lines.size() || !work.lines[border.line].moves) continue;
      const FoldMoves& moves = *work.lines[border.line].moves;
      const double x = 0.5 * (border.from.x() + border.to.x());
      if (moves.shut_deg == 0 && moves.open_deg > 0 && x < least) least = x, found = border.line;
    }
    return found;
  }

  Result<void> chooseGround() {
    Assembly& assembly = m_builder.assembly();
    assembly.symmetric = false;
    const WorkedPiece& first = m_made.front();
    const std::size_t face = groundFace(first.sheet());
    if (face < first.panels().size()) return assembly.root = first.panels()[face], Result<void>();
    return Error{{"sheet.ground", Millimetres{m_card.ground->x()}, Millimetres{m_card.ground->y()}},
                 "card.ground"};
  }

  /// Which panels are pages, whose place the opening tells, and which hang on joints. What drives
  /// and glue say twice need not agree: the checks measure how far it is torn.
  Result<void> settle() {
    Assembly& assembly = m_builder.assembly();
    std::vector<char> page(assembly.panels.size(), 0);
    for (const auto& [p, pose] : assembly.basePoses(0.5 * kPi))
      page[static_cast<std::size_t>(p.value)] = 1;
    std::vector<PanelIndex> hanging;
    for (PanelIndex p : assembly.panels.indices()) {
      Panel& panel = assembly.panels[p];
      if (!page[static_cast<std::size_t>(p.value)])
        hanging.push_back(p);
      else if (panel.use == PanelUse::Wall)
        panel.use = PanelUse::Page;
    }
    // The leaves beside the gutter are one another's other side, as in the other bases.
    if (const FoldIndex gutter = assembly.findFold("card/gutter"); gutter.valid())
      m_builder.twins(assembly.folds[gutter].left, assembly.folds[gutter].right);
    for (std::vector<PanelIndex>& together : sections(hanging))
      m_builder.placementByRings(seatOfRoot(), std::move(together));
    return m_builder.status();
  }

  /// Panels that hang together, each section by itself: the engine finds them one after another.
  std::vector<std::vector<PanelIndex>> sections(std::vector<PanelIndex> hanging) const {
    const Assembly& assembly = m_builder.assembly();
    std::vector<std::vector<PanelIndex>> all;
    while (!hanging.empty()) {
      std::vector<PanelIndex> one{hanging.front()};
      hanging.erase(hanging.begin());
      const auto take = [&](PanelIndex a, PanelIndex b, PanelIndex here) {
        const auto next = std::ranges::find(hanging, a == here ? b : a);
        if ((a == here || b == here) && next != hanging.end())
          one.push_back(*next), hanging.erase(next);
      };
      for (std::size_t k = 0; k < one.size(); ++k) {
        const PanelIndex here = one[k];
        for (FoldIndex f : assembly.foldsOf(here))
          take(assembly.folds[f].left, assembly.folds[f].right, here);
        for (const auto& [j, glue] : assembly.every<Glue>())
          take(glue.tab, glue.host, here);
      }
      all.push_back(std::move(one));
    }
    return all;
  }

  const Seat& seatOfRoot() const {
    const Assembly& assembly = m_builder.assembly();
    return *assembly.findSeat(assembly.panels[assembly.root].key);
  }

  const CardBase& m_card;
  AssemblyBuilder& m_builder;
  std::vector<WorkedPiece> m_made;
  int m_pages = 0;
};

Result<void> buildSheet(const CardBase& card, AssemblyBuilder& builder) {
  return SheetBuild(card, builder).run();
}

} // namespace

const BaseKind& sheetBase() {
  static const BaseKind kind{"sheet", {}, startingSheet, buildSheet, 90, Rests::OnEdge};
  return kind;
}

} // namespace hinge
