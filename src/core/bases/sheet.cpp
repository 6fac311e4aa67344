// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/base.h"
#include "core/pieces/joining.h"
#include "core/pieces/worked_piece.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <fmt/format.h>

// Sheets: a base as its maker scored, cut and joined it. Each sheet is worked like a free piece;
// what its maker says of a score (WorkLine::moves) makes it a drive. Panels that no drive reaches
// hang on the joints, as in free pieces.

namespace hinge {
namespace {

constexpr double kMisfit_mm = 0.01; ///< of what the drives say twice

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

  /// The face of the first sheet that lies on the table. Without a word it is the last leaf beside
  /// a fold of which the maker says how it moves, as in the other bases of leaves in a row.
  std::size_t groundFace(const PieceSheet& sheet) const {
    if (m_card.ground) return sheet.faceAt(*m_card.ground);
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

  /// Which panels are pages, whose place the opening tells, and which hang on joints.
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
    if (auto torn = consistent(); !torn) return torn;
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

  using Places = IndexedVector<PanelIndex, std::optional<Iso3>>;

  /// How far a panel is from where it would have to be.
  double apart(PanelIndex panel, const Iso3& wanted, const Places& at) const {
    double gap = 0;
    for (const Vec2& corner : m_builder.assembly().panels[panel].outline.rim)
      gap = std::max(gap, (wanted * lift(corner) - *at[panel] * lift(corner)).norm());
    return gap;
  }

  /// What is placed twice, round a hole or by glue, must come to the same place both times; and two
  /// pages on a fold that nobody moves must still meet there.
  std::optional<Error> torn(const Places& at, double t) const {
    const Assembly& assembly = m_builder.assembly();
    for (FoldIndex f : assembly.folds.indices()) {
      const Fold& fold = assembly.folds[f];
      if (!at[fold.left] || !at[fold.right]) continue;
      double gap = 0;
      for (const Vec2& end : {fold.from, fold.to})
        gap = std::max(gap, (*at[fold.left] * lift(end) - *at[fold.right] * lift(end)).norm());
      if (const auto drive = std::ranges::find(assembly.drives, f, &Drive::fold);
          drive != assembly.drives.end())
        gap = std::max(
            gap, apart(fold.right, *at[fold.left] * foldedOver(fold, drive->angle_rad(t)), at));
      if (gap > kMisfit_mm)
        return Error{{"sheet.torn", fold.label, Millimetres{gap}, Degrees{degrees(t)}}, fold.key};
    }
    for (const auto& [j, glue] : assembly.every<Glue>()) {
      if (!at[glue.tab] || !at[glue.host]) continue;
      const double gap = apart(glue.tab, *at[glue.host] * glue.tabToHost, at);
      if (gap > kMisfit_mm)
        return Error{{"sheet.glue-torn", assembly.panels[glue.tab].label,
                      assembly.panels[glue.host].label, Millimetres{gap}, Degrees{degrees(t)}},
                     assembly.panels[glue.tab].key};
    }
    return std::nullopt;
  }

  Result<void> consistent() const {
    const Assembly& assembly = m_builder.assembly();
    constexpr int kSteps = 12;
    for (int k = 0; k <= kSteps; ++k) {
      const double t = kPi * k / kSteps;
      Places at;
      at.assign(assembly.panels.size(), {});
      for (const auto& [p, pose] : assembly.basePoses(t))
        at[p] = pose;
      // Bases have opened before the way of the leaf ends where pulls have the rest of it.
      if (auto error = torn(at, assembly.baseOpening_rad(t))) return *error;
    }
    return {};
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
