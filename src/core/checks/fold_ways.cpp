// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/evidence.h"
#include "core/edits/rejoining.h"
#include "core/motion/fold_angle.h"
#include "core/motion/openings.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <map>
#include <set>

// Folds go the way they are marked: a score marked as a mountain never closes as a valley. Tables,
// drawings and the plan of work tell the maker the marks, so that these have to be right.

namespace hinge {
namespace {

/// Paper that lies nearly flat, or nearly folded over, may seem to have gone the other way.
constexpr double kSurely_rad = radians(3);

/// How far a fold has gone against its mark (rad), negative when it goes as marked; 0 when neither
/// can be told.
double against(const Fold& fold, const Pose& pose) {
  if (!pose.placed[fold.left] || !pose.placed[fold.right]) return 0;
  const double angle = foldAngleIn(pose, fold);
  const double wrong = fold.sense == FoldSense::Valley ? -angle : angle;
  const double size = std::abs(wrong);
  return size > kSurely_rad && size < kPi - kSurely_rad ? wrong : 0;
}

struct Wrong {
  double most_rad = 0, at_rad = 0, from_rad = 0, to_rad = 0;
};

/// The same piece with the marks of these folds the other way round.
std::optional<Mend> turned(const CheckInput& in, StructureId id,
                           const std::vector<FoldIndex>& folds) {
  const StructureItem* item = in.design.find(id);
  if (!item || !item->work) return std::nullopt;
  PieceWork work = *item->work;
  bool any = false;
  for (WorkLine& line : work.lines) {
    const auto number = static_cast<std::size_t>(&line - work.lines.data());
    const auto liesOn = [&](FoldIndex f) {
      return lineUnder(work, in.assembly.folds[f]) == number;
    };
    if (std::ranges::none_of(folds, liesOn)) continue;
    line.kind =
        line.kind == WorkLine::Kind::Mountain ? WorkLine::Kind::Valley : WorkLine::Kind::Mountain;
    any = true;
  }
  if (!any) return std::nullopt;
  Mend mend;
  mend.works.push_back({id, std::move(work)});
  mend.change = Text(folds.size() > 1 ? "mend/turn-scores" : "mend/turn-score",
                     nameOf(in.design, id), in.assembly.folds[folds.front()].label);
  return mend;
}

/// The same piece glued by its other side, when all of its scores go wrong.
std::optional<Mend> turnedOver(const CheckInput& in, StructureId id, PieceIndex piece,
                               std::size_t wrong) {
  const StructureItem* item = in.design.find(id);
  if (!item || !item->work) return std::nullopt;
  const auto folds = std::ranges::count_if(in.assembly.folds, [&](const Fold& fold) {
    return in.assembly.panels[fold.left].piece == piece;
  });
  if (static_cast<std::size_t>(folds) != wrong) return std::nullopt;
  Mend mend;
  mend.works.push_back({id, turnedOver(*item->work)});
  mend.change = Text("mend/turn-over", nameOf(in.design, id));
  return mend;
}

/// One finding for a piece, however many of its folds go the other way.
std::vector<Finding> checkFoldWays(const CheckInput& in) {
  std::map<FoldIndex, Wrong> wrong;
  std::set<FoldIndex> right; // at some opening: what folds to both sides has no one mark
  for (const double t : openingsToLookAt(in.assembly, 2 * kCheckStep_rad)) {
    if (t <= 0 || in.stop.stop_requested()) continue;
    const Pose pose = in.motion.poseAt(t);
    for (FoldIndex f : in.assembly.folds.indices()) {
      const Fold& fold = in.assembly.folds[f];
      if (in.motion.isLoose(fold.left) || in.motion.isLoose(fold.right)) continue;
      const double by = against(fold, pose);
      if (by < 0) right.insert(f);
      if (by <= 0) continue;
      const auto [at, isNew] = wrong.try_emplace(f);
      if (isNew) at->second.from_rad = t;
      at->second.to_rad = t;
      if (by > at->second.most_rad) at->second.most_rad = by, at->second.at_rad = t;
    }
  }
  std::map<PieceIndex, std::vector<FoldIndex>> ofPiece;
  for (const auto& [f, how] : wrong)
    if (!right.contains(f))
      ofPiece[in.assembly.panels[in.assembly.folds[f].left].piece].push_back(f);
  std::vector<Finding> found;
  for (auto& [piece, folds] : ofPiece) {
    const FoldIndex worst =
        *std::ranges::max_element(folds, {}, [&](FoldIndex f) { return wrong.at(f).most_rad; });
    const Fold& fold = in.assembly.folds[worst];
    const Wrong& how = wrong.at(worst);
    Finding f{"folds-other-way", Severity::Spoils};
    addPanel(in, fold.left, f), addPanel(in, fold.right, f);
    f.amount = degrees(how.most_rad), f.unit = AmountUnit::Degree;
    f.from_rad = how.from_rad, f.to_rad = how.to_rad, f.show_rad = how.at_rad;
    f.place =
        in.motion.poseAt(f.show_rad).panels[fold.left] * lift(Vec2(0.5 * (fold.from + fold.to)));
    f.detail =
        Text(fold.sense == FoldSense::Valley ? "marked-valley" : "marked-mountain", fold.label);
    if (const auto owner = in.assembly.pieces[piece].owner)
      for (auto mend : {turned(in, *owner, folds), turnedOver(in, *owner, piece, folds.size())})
        if (mend) f.proposed.push_back(std::move(*mend));
    found.push_back(std::move(f));
  }
  return found;
}

} // namespace

const CheckKind& foldWaysCheck() {
  static const CheckKind kind{"fold-ways", checkFoldWays};
  return kind;
}

} // namespace hinge
