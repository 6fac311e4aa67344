// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/solve_piece.h"
#include "core/structures/assemble.h"
#include "core/structures/closure.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

/// The gaps of all rings of a structure, one after another.
Eigen::VectorXd gapsOf(const Motion& motion, StructureId id) {
  std::vector<double> all;
  for (const Motion::BlockReport& block : motion.blocks())
    if (std::ranges::find(block.owners, id) != block.owners.end())
      all.insert(all.end(), block.shutGap.begin(), block.shutGap.end());
  return Eigen::Map<const Eigen::VectorXd>(all.data(), static_cast<Eigen::Index>(all.size()));
}

/// Sizes of a piece that change together, by how much for one millimetre.
using Change = std::vector<std::pair<std::string_view, double>>;

/// Every width by itself, then every score by itself: one panel wider and the next as much
/// narrower.
std::vector<Change> changesOf(const StructureItem& item) {
  std::vector<Change> all;
  const auto directions = mendDirectionsOf(item);
  for (const MendDirection& d : directions)
    all.push_back({{d.terms.front().key, 1.0}});
  const ParameterSpec* place = findSense(parametersOf(item), Sense::Place);
  for (std::size_t k = 0; k + 1 < directions.size(); ++k)
    if (directions[k + 1].terms.front().key != place->key)
      all.push_back(
          {{directions[k].terms.front().key, 1.0}, {directions[k + 1].terms.front().key, -1.0}});
  return all;
}

std::optional<Mend> mendOf(const StructureItem& item, const Change& change, double by) {
  Mend mend;
  for (const auto& [key, share] : change) {
    const ParameterSpec* spec = findSpec(parametersOf(item), key);
    const double from = item.values.find(key)->second,
                 to = std::round((from + share * by) * 1e6) / 1e6;
    if (to < spec->least || to > spec->most) return std::nullopt;
    mend.edits.push_back({item.id, std::string(key), spec->unit, from, to});
  }
  return mend;
}

std::optional<Motion> changed(const Design& design, const Mend& mend, const Motion& near) {
  const auto edited = applyMend(design, mend);
  if (!edited) return std::nullopt;
  auto assembled = assembleDesign(*edited);
  if (!assembled) return std::nullopt;
  return Motion::trace(std::make_shared<const Assembly>(std::move(assembled).value()), {}, &near);
}

/// Distance from the seat's fold to the lower end of a score of the piece, as it is glued to one of
/// the fold's sides by `joint`.
std::optional<double> footOf(const Assembly& assembly, const Seat& seat, const PieceJoint& joint,
                             const PieceWork& work, const ScoreMark& mark) {
  const Seat* face = assembly.findSeat(joint.on);
  const auto lies = is<given::Glue>(joint) ? liesOn(joint.kind) : std::nullopt;
  if (!face || !lies) return std::nullopt;
  for (const SeatSide& side : seat.sides) {
    if (side.panel != face->sides[0].panel) continue;
    const WorkLine& line = work.lines[mark.line];
    const Vec2 low = line.from.y() <= line.to.y() ? line.from : line.to, from = low - joint.at;
    const Vec3 onPiece =
        face->sides[0].toPiece * lift(Vec2(joint.to + from.x() * lies->x + from.y() * lies->y()));
    return (inverseOf(side.toPiece) * onPiece).x();
  }
  return std::nullopt;
}

} // namespace

Result<PieceWork> evenSteps(const Design& design, StructureId id, int steps) {
  const StructureItem* item = design.find(id);
  if (!item || !item->work) return Error{"structure.missing/steps", id.text()};
  if (steps < 1 || steps > 10) return Error{"steps.range", id.text()};
  const auto assembled = assembleDesign(design);
  if (!assembled) return assembled.error();
  PieceWork work =
      *item->work; // with its lower left corner in the origin, from where scores are counted
  const Vec2 corner = boundsOf(work.outline).low;
  for (Vec2& p : work.outline)
    p -= corner;
  for (WorkLine& line : work.lines)
    line.from -= corner, line.to -= corner;
  for (PieceJoint& joint : work.joints)
    joint.at -= corner;
  const auto marks = scoreMarks(work);
  const Seat& seat = *assembled->findSeat(item->seat);
  if (marks.size() < 2) return Error{"steps.no-tabs", id.text()};
  std::optional<double> first, last;
  for (const PieceJoint& joint : work.joints) {
    if (joint.at.x() < marks.front().low_mm)
      first = footOf(*assembled, seat, joint, work, marks.front());
    if (joint.at.x() > marks.back().low_mm)
      last = footOf(*assembled, seat, joint, work, marks.back());
  }
  if (!first || !last || *first <= 0 || *last <= 0) return Error{"steps.not-glued", id.text()};
  // From the first page: out by a tread, parallel to the other page, then down by a riser.
  const double rise = *first / steps, tread = *last / steps,
               height = boundsOf(work.outline).size().y();
  const double length = boundsOf(work.outline).size().x(), tail = length - marks.back().low_mm;
  std::vector<double> scores{marks.front().low_mm};
  for (int k = 0; k < steps; ++k)
    scores.push_back(scores.back() + tread), scores.push_back(scores.back() + rise);
  PieceWork made = plainStrip(scores.back() + tail, height);
  for (std::size_t k = 0; k < scores.size(); ++k) {
    const bool end = k == 0 || k + 1 == scores.size();
    const WorkLine::Kind kind = end ? work.lines[(k == 0 ? marks.front() : marks.back()).line].kind
                                : k % 2 == 1 ? WorkLine::Kind::Mountain
                                             : WorkLine::Kind::Valley;
    made.lines.push_back({kind, {scores[k], 0}, {scores[k], height}});
  }
  for (PieceJoint joint : work.joints) {
    if (joint.at.x() > marks.back().low_mm)
      joint.at.x() += scores.back() - marks.back().low_mm;
    else if (joint.at.x() > marks.front().low_mm)
      continue; // was joined to a panel that is no more
    made.joints.push_back(joint);
  }
  return made;
}

std::optional<Mend> solveShut(const Design& design, const Motion& motion, StructureId id) {
  const StructureItem& item = *design.find(id);
  const Eigen::VectorXd gap = gapsOf(motion, id);
  const double misfit = shutGap_mm(id, motion);
  std::optional<Mend> best;
  double least = 1e300;
  for (const Change& change : changesOf(item)) {
    if (best && change.size() > 1) break; // a single width is what makers want to hear
    constexpr double kStep_mm = 0.5;
    // The gap itself is worth a try both ways: where a ring jams the nearest shut state may change
    // with the step.
    std::vector<double> guesses{misfit, -misfit};
    const auto step = mendOf(item, change, kStep_mm);
    if (const auto tried = step ? changed(design, *step, motion) : std::nullopt) {
      const Eigen::VectorXd next = gapsOf(*tried, id),
                            slope = next.size() == gap.size()
                                        ? Eigen::VectorXd((next - gap) / kStep_mm)
                                        : Eigen::VectorXd();
      if (slope.squaredNorm() > 1e-12)
        if (const double by = -slope.dot(gap) / slope.squaredNorm();
            (gap + by * slope).norm() < 1e-5)
          guesses = {by};
    }
    for (double by : guesses) {
      if (std::abs(by) >= least - 1e-9) continue;
      const auto mend = mendOf(item, change, by);
      const auto solved = mend ? changed(design, *mend, motion) : std::nullopt;
      if (!solved || !solved->impossible().empty() || shutGap_mm(id, *solved) >= kExactClosure)
        continue;
      least = std::abs(by), best = mend;
    }
  }
  return best;
}

} // namespace hinge
