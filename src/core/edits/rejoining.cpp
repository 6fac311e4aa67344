// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/rejoining.h"
#include "core/pieces/piece_sheet.h"
#include "core/pieces/score_edits.h"
#include "core/structures/names.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

/// The direction of the score beside the panel that holds a point; upright where there is none.
Vec2 scoreBeside(const PieceWork& work, const PieceSheet& sheet, const Vec2& at) {
  const std::size_t face = sheet.faceAt(at);
  for (const auto& border : sheet.parts.borders)
    if ((border.left == face || border.right == face) && border.line < work.lines.size() &&
        work.lines[border.line].kind != WorkLine::Kind::Cut)
      return (border.to - border.from).normalized();
  return Vec2::UnitY();
}

/// The joint by the other side of its panel: across the score beside it nothing changes, along it
/// both ends change places.
void takeOtherSide(given::Kind& kind, const Vec2& score) {
  const auto lies = startsAs(kind);
  bool* byFace = byFaceOf(kind);
  if (!lies || !byFace) return;
  const Vec2 x = Vec2::UnitX() - 2 * score.x() * score;
  *byFace = !*byFace;
  const Vec2 onFace = x.x() * lies->x + x.y() * lies->y();
  layAs(kind, std::atan2(onFace.y(), onFace.x()));
}

Mend withWork(const StructureItem& item, PieceWork work, Text change) {
  Mend mend;
  mend.change = std::move(change);
  mend.works.push_back({item.id, std::move(work)});
  return mend;
}

} // namespace

std::optional<std::size_t> lineUnder(const PieceWork& work, const Fold& fold) {
  for (std::size_t k = 0; k < work.lines.size(); ++k) {
    const WorkLine& line = work.lines[k];
    const auto on = [&](const Vec2& end) {
      return distanceToSegment(end, line.from, line.to) < kSameVertex_mm;
    };
    if (line.kind != WorkLine::Kind::Cut && on(fold.from) && on(fold.to)) return k;
  }
  return std::nullopt;
}

std::vector<Mend> joinedOtherwise(const Design& design, const Assembly& assembly,
                                  const StructureItem& item) {
  std::vector<Mend> all;
  const PieceSheet sheet(*item.work);
  for (std::size_t j = 0; j < item.work->joints.size(); ++j) {
    const PieceJoint& joint = item.work->joints[j];
    const Seat* face = assembly.findSeat(joint.on);
    if (!face || !startsAs(joint.kind) || !byFaceOf(joint.kind)) continue;
    const Text name = nameOf(design, item.id), host = seatName(design, assembly, *face);
    PieceWork other = *item.work, round = *item.work;
    takeOtherSide(other.joints[j].kind, scoreBeside(*item.work, sheet, joint.at));
    const Text which("as-it-is", static_cast<int>(j + 1));
    all.push_back(withWork(item, std::move(other), {"mend/other-side", name, which, host}));
    // A rule says which way it lies: half round is a place of its own.
    PieceJoint& turned = round.joints[j];
    turned.rules.clear();
    const auto lies = startsAs(turned.kind);
    layAs(turned.kind, std::atan2(-lies->x.y(), -lies->x.x()));
    all.push_back(withWork(item, std::move(round), {"mend/half-round", name, which, host}));
  }
  for (const Fold& fold : assembly.folds) {
    if (assembly.panels[fold.left].owner != item.id) continue;
    const auto line = lineUnder(*item.work, fold);
    if (!line) continue;
    PieceWork work = *item.work;
    auto& kind = work.lines[*line].kind;
    kind = kind == WorkLine::Kind::Valley ? WorkLine::Kind::Mountain : WorkLine::Kind::Valley;
    all.push_back(
        withWork(item, std::move(work), {"mend/turn-score", nameOf(design, item.id), fold.label}));
  }
  return all;
}

std::vector<Mend> drivenOtherwise(const Design& design, const StructureItem& item,
                                  const Fold& fold) {
  const auto line = item.work ? lineUnder(*item.work, fold) : std::nullopt;
  if (!line || item.work->lines[*line].moves) return {};
  const auto told = [&](const FoldMoves& moves, const char* key) {
    PieceWork work = *item.work;
    work.lines[*line].moves = moves;
    return withWork(item, std::move(work), {key, nameOf(design, item.id), fold.label});
  };
  FoldMoves lifted{180, 90}, flat{180, 180}, opens;
  lifted.byHand = true;
  return {told(lifted, "mend/lifted"), told(flat, "mend/kept-flat"), told(opens, "mend/opens")};
}

std::vector<Mend> finished(const Design& design, const StructureItem& item, int line) {
  std::vector<Mend> all;
  const auto k = static_cast<std::size_t>(line - 1);
  if (!item.work || k >= item.work->lines.size()) return all;
  const Text name = nameOf(design, item.id), score("score", line);
  if (auto on = withLineDrawnOn(*item.work, k))
    all.push_back(withWork(item, std::move(*on), {"mend/drawn-on", name, score}));
  if (auto gone = withLineRemoved(*item.work, k))
    all.push_back(withWork(item, std::move(gone).value(), {"mend/erased", name, score}));
  return all;
}

} // namespace hinge
