// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/worked_piece.h"
#include <algorithm>
#include <fmt/format.h>
#include <numeric>

namespace hinge {

Result<WorkedPiece> WorkedPiece::make(const PieceWork& work, const WorkedNames& names,
                                      AssemblyBuilder& builder) {
  WorkedPiece made(work);
  if (auto possible = made.possible(names.place); !possible) return possible.error();
  made.makePanels(names, builder);
  made.makeFolds(names, builder);
  if (!made.isOneSheet()) return Error{"work.in-two", names.place};
  return made;
}

Result<void> WorkedPiece::possible(const std::string& place) const {
  for (const PieceJoint& joint : m_work->joints)
    if (!m_sheet.hasPaper(joint.at))
      return Error{{"work.joint-outside", Text("joint." + std::string(jointKey(joint.kind))),
                    Millimetres{joint.at.x()}, Millimetres{joint.at.y()}},
                   place};
  return {};
}

bool WorkedPiece::glued(std::size_t face) const {
  return std::ranges::any_of(m_work->joints, [&](const PieceJoint& j) {
    return is<given::Glue>(j) && m_sheet.faceAt(j.at) == face;
  });
}

bool WorkedPiece::isFold(const Subdivision::Border& b) const {
  return b.line < m_work->lines.size() && m_work->lines[b.line].kind != WorkLine::Kind::Cut &&
         m_sheet.paper[b.left] && m_sheet.paper[b.right];
}

bool WorkedPiece::isTab(std::size_t face, const WorkedNames& names,
                        const Assembly& assembly) const {
  const double area = area_mm2(m_sheet.parts.faces[face]);
  const bool larger = std::ranges::any_of(m_work->joints, [&](const PieceJoint& j) {
    const Seat* host = m_sheet.faceAt(j.at) == face ? assembly.findSeat(j.on) : nullptr;
    return host && area_mm2(assembly.panels[host->sides[0].panel].outline) < area;
  });
  if (names.largeIsNoTab && larger) return false;
  const auto folds = std::ranges::count_if(m_sheet.parts.borders, [&](const auto& b) {
    return isFold(b) && (b.left == face || b.right == face);
  });
  return glued(face) && folds == 1 && m_sheet.parts.faces.size() > 1 &&
         convexParts(m_sheet.parts.faces[face]).size() == 1;
}

void WorkedPiece::makePanels(const WorkedNames& names, AssemblyBuilder& builder) {
  m_piece = builder.piece(names.piece, names.label);
  int number = 0;
  for (std::size_t f = 0; f < m_sheet.parts.faces.size(); ++f) {
    m_panels.push_back({});
    if (!m_sheet.paper[f]) continue;
    const Region& face = m_sheet.parts.faces[f];
    auto [role, label] = names.panel(++number);
    m_panels.back() =
        builder.panel(m_piece, role, std::move(label),
                      isTab(f, names, builder.assembly()) ? PanelUse::Tab : names.use, face.rim);
    builder.assembly().panels[m_panels.back()].outline.holes = face.holes;
    for (std::size_t hole : m_sheet.holes)
      if (contains(face, m_work->windows[hole].front()))
        builder.cutWindow(m_panels.back(), m_work->windows[hole]);
    const Box2 box = boundsOf(face.rim);
    builder.faceSeats(m_panels.back(), box.low, {box.high.x(), box.low.y()});
  }
  for (const auto& [line, stretch] : m_sheet.parts.loose) {
    const PanelIndex panel = panelAt(0.5 * (stretch.first + stretch.second));
    if (line >= m_work->lines.size() || m_work->lines[line].kind == WorkLine::Kind::Cut) {
      builder.feature(m_piece, Cut{panel, stretch.first, stretch.second});
      continue;
    }
    const bool folds = std::ranges::any_of(
        m_sheet.parts.borders, [&, k = line](const auto& b) { return b.line == k && isFold(b); });
    builder.feature(m_piece, IdleScore{panel, stretch.first, stretch.second,
                                       static_cast<int>(line) + 1, folds});
  }
}

namespace {

/// A fold that stays as its maker wants it, or rests so until a hand lifts it.
void holdFold(Assembly& assembly, FoldIndex index, const FoldMoves& moves) {
  Fold& fold = assembly.folds[index];
  const double sign = fold.sense == FoldSense::Valley ? 1 : -1;
  fold.rest_rad = sign * radians(180 - moves.shut_deg);
  fold.shutKnown = true, fold.shutAngle_rad = *fold.rest_rad;
  if (moves.byHand)
    assembly.lifts.push_back({index,
                              {},
                              *fold.rest_rad,
                              sign * radians(180 - moves.open_deg),
                              {},
                              true,
                              false,
                              radians(moves.step_deg)});
}

} // namespace

void WorkedPiece::makeFolds(const WorkedNames& names, AssemblyBuilder& builder) {
  std::vector<int> used(m_work->lines.size(), 0);
  for (const auto& border : m_sheet.parts.borders) {
    if (!isFold(border)) continue;
    const int again = used[border.line]++;
    const std::string part = again ? std::string(1, static_cast<char>('a' + again)) : "";
    const std::string number = fmt::format("{}{}", border.line + 1, part);
    const bool gutter = border.line == names.gutter;
    const bool valley = m_work->lines[border.line].kind == WorkLine::Kind::Valley;
    const PanelIndex left = m_panels[border.left], right = m_panels[border.right];
    const std::string role =
        gutter ? "gutter" + (again ? "-" + part : "") : fmt::format("{}-{}", names.fold, number);
    const Text label = gutter ? Text("gutter") : names.foldLabel(number);
    const FoldIndex fold =
        builder.fold(role, label, left, right, border.from, border.to,
                     valley ? FoldSense::Valley : FoldSense::Mountain, valley ? kPi : -kPi);
    builder.assembly().folds[fold].shutKnown = false;
    m_folds.push_back({fold, border.line});
    const auto& moves = m_work->lines[border.line].moves;
    if (const auto& folded = m_work->lines[border.line].folded_deg)
      builder.assembly().folds[fold].start_rad = (valley ? 1 : -1) * radians(180 - *folded);
    if (moves && moves->held()) holdFold(builder.assembly(), fold, *moves);
    const auto use = [&](PanelIndex p) { return builder.assembly().panels[p].use; };
    if (use(left) == PanelUse::Tab || use(right) == PanelUse::Tab) continue;
    const double shut_rad = moves ? radians(moves->shut_deg) : 0.0; // on the inner side
    const Seat onFace =
        seatOnFold(builder, role, gutter ? label : names.seatLabel(number), left, right,
                   border.from, border.to, valley ? shut_rad : 2 * kPi - shut_rad);
    builder.seat(role + "-back", Text("from-behind", onFace.label), onFace.sides[1],
                 onFace.sides[0], onFace.length_mm, 2 * kPi - onFace.shutOpening_rad);
    // What is not folded over in the shut card carries only what lies flat otherwise.
    if (moves && (moves->held() || moves->shut_deg != 0))
      for (const std::string& seat : {onFace.key, onFace.key + "-back"})
        builder.crease(seat);
  }
}

void WorkedPiece::drive(Assembly& assembly, bool heldToo) const {
  for (const auto& [index, line] : m_folds) {
    const auto& moves = m_work->lines[line].moves;
    if (!moves || (moves->held() && !heldToo)) continue;
    Fold& fold = assembly.folds[index];
    const double sign = fold.sense == FoldSense::Valley ? 1 : -1;
    fold.shutKnown = true, fold.shutAngle_rad = sign * radians(180 - moves->shut_deg);
    const double open_rad =
        moves->held() ? fold.shutAngle_rad : sign * radians(180 - moves->open_deg);
    assembly.drives.push_back(
        {index, fold.shutAngle_rad, open_rad, radians(moves->from_deg), radians(moves->to_deg)});
  }
}

bool WorkedPiece::isOneSheet() const {
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
    if (first && root(f) != root(*first)) return false;
    first = f;
  }
  return true;
}

PanelIndex WorkedPiece::panelAt(const Vec2& at) const {
  const std::size_t face = m_sheet.faceAt(at);
  return face < m_panels.size() ? m_panels[face] : PanelIndex();
}

} // namespace hinge
