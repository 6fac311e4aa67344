// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/solve_piece.h"
#include "core/pieces/placing.h"
#include "core/structures/assemble.h"
#include "core/structures/closure.h"
#include "core/structures/names.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <cmath>
#include <functional>

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

/// One length of a piece that can be changed alone; `by` is how far, in mm.
using Single = std::function<std::optional<Mend>(double by)>;

double rounded(double length_mm) {
  return std::round(length_mm * 1e6) / 1e6;
}

std::optional<Mend> widthChanged(const StructureItem& item, std::string_view key, double by) {
  const ParameterSpec* spec = findSpec(parametersOf(item), key);
  const double from = item.values.find(key)->second, to = rounded(from + by);
  if (to < spec->least || to > spec->most) return std::nullopt;
  Mend mend;
  mend.edits.push_back({item.id, std::string(key), spec->unit, from, to});
  return mend;
}

std::optional<Mend> scoreMoved(const Design& design, const StructureItem& item,
                               const ScoreMark& mark, std::size_t number, double by) {
  const double to = rounded(mark.low_mm + by);
  auto work = withScoreMoved(*item.work, mark.line, to, false);
  if (!work) return std::nullopt;
  Mend mend;
  mend.change = Text("mend/score", nameOf(design, item.id), number, Millimetres{mark.low_mm},
                     Millimetres{to});
  mend.works.push_back({item.id, std::move(work).value()});
  return mend;
}

std::optional<Mend> joinedElsewhere(const StructureItem& item, std::size_t joint, const Text& panel,
                                    const Text& face, int axis, double by) {
  PieceWork work = *item.work;
  Vec2& to = work.joints[joint].to;
  const Vec2 from = to;
  to[axis] = rounded(to[axis] + by);
  Mend mend;
  mend.change = Text("mend/joint", panel, face, Millimetres{from.x()}, Millimetres{from.y()},
                     Millimetres{to.x()}, Millimetres{to.y()});
  mend.works.push_back({item.id, std::move(work)});
  return mend;
}

/// The distance by which a rule places a joint.
std::optional<Mend> ruledElsewhere(const StructureItem& item, std::size_t joint, std::size_t rule,
                                   const Text& panel, const Text& face, double by) {
  PieceWork work = *item.work;
  PlaceRule& placed = work.joints[joint].rules[rule];
  const Text was = described(placed);
  double& distance_mm = std::get<placed::Distance>(placed).distance_mm;
  distance_mm = rounded(distance_mm + by);
  Mend mend;
  mend.change = Text("mend/rule", panel, face, was, described(placed));
  mend.works.push_back({item.id, std::move(work)});
  return mend;
}

std::optional<PanelIndex> panelWith(const Assembly& assembly, StructureId id, const Vec2& point) {
  for (PanelIndex p : assembly.panels.indices())
    if (assembly.panels[p].owner == id && contains(assembly.panels[p].outline, point)) return p;
  return std::nullopt;
}

/// Every width, every score that keeps its neighbours, every joint along both axes of its face.
std::vector<Single> singlesOf(const Design& design, const StructureItem& item,
                              const Assembly& assembly) {
  std::vector<Single> all;
  const ParameterSpec* place = findSense(parametersOf(item), Sense::Place);
  for (const MendDirection& d : mendDirectionsOf(item))
    if (const auto key = d.terms.front().key; key != place->key)
      all.push_back([&item, key](double by) { return widthChanged(item, key, by); });
  const auto marks = scoreMarks(*item.work);
  for (std::size_t k = 0; k < marks.size(); ++k)
    all.push_back([&design, &item, mark = marks[k], k](double by) {
      return scoreMoved(design, item, mark, k + 1, by);
    });
  for (std::size_t j = 0; j < item.work->joints.size(); ++j) {
    const PieceJoint& joint = item.work->joints[j];
    if (is<given::Band>(joint) || is<given::Film>(joint)) continue; // no guide
    const auto panel = panelWith(assembly, item.id, joint.at);
    const Seat* face = assembly.findSeat(joint.on);
    if (!panel || !face) continue;
    const Text name = panelName(design, assembly, *panel),
               host = panelName(design, assembly, face->sides[0].panel);
    for (std::size_t r = 0; r < joint.rules.size(); ++r)
      if (std::holds_alternative<placed::Distance>(joint.rules[r]))
        all.push_back([&item, j, r, name, host](double by) {
          return ruledElsewhere(item, j, r, name, host, by);
        });
    if (!joint.rules.empty()) continue;
    for (const int axis : {0, 1})
      all.push_back([&item, j, name, host, axis](double by) {
        return joinedElsewhere(item, j, name, host, axis, by);
      });
  }
  return all;
}

std::optional<Motion> changed(const Design& design, const Mend& mend, const Motion& near,
                              std::stop_token stop) {
  const auto edited = applyMend(design, mend);
  if (!edited) return std::nullopt;
  auto assembled = assembleDesign(*edited);
  if (!assembled) return std::nullopt;
  return Motion::trace(std::make_shared<const Assembly>(std::move(assembled).value()), stop, &near);
}

/// The openings that all rings of a structure follow.
std::pair<double, double> rangeOf(const Motion& motion, StructureId id) {
  std::pair<double, double> range{motion.assembly().low_rad, motion.assembly().high_rad};
  for (const Motion::BlockReport& block : motion.blocks())
    if (std::ranges::find(block.owners, id) != block.owners.end()) {
      range.first = std::max(range.first, block.low_rad);
      range.second = std::min(range.second, block.high_rad);
    }
  return range;
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
    const auto goOn = [&](Vec2& p) {
      if (p.x() > marks.back().low_mm) p.x() += scores.back() - marks.back().low_mm;
    };
    for (PlaceRule& rule : joint.rules)
      eachPoint(rule, goOn);
    if (joint.at.x() > marks.back().low_mm)
      goOn(joint.at);
    else if (joint.at.x() > marks.front().low_mm)
      continue; // was joined to a panel that is no more
    made.joints.push_back(joint);
  }
  return made;
}

namespace {

/// Finds how far one length is to go.
class Solving {
public:
  Solving(const Design& design, const Motion& motion, StructureId id, double apart_mm,
          std::stop_token stop)
      : m_design(design), m_motion(motion), m_id(id), m_apart_mm(apart_mm), m_stop(stop),
        m_gap(gapsOf(motion, id)), m_misfit_mm(shutGap_mm(id, motion)),
        m_range(rangeOf(motion, id)) {}

  std::optional<std::pair<double, Mend>> least(const Single& single) const {
    std::optional<std::pair<double, Mend>> best;
    for (const double by : guesses(single)) {
      if (best && std::abs(by) >= best->first) continue;
      const auto mend = single(by);
      if (mend && shuts(*mend)) best = {std::abs(by), *mend};
    }
    return best;
  }

private:
  std::vector<double> guesses(const Single& single) const {
    if (m_apart_mm > 0) return {m_apart_mm, -m_apart_mm};
    constexpr double kStep_mm = 0.5;
    if (const auto step = single(kStep_mm))
      if (const auto tried = changed(m_design, *step, m_motion, m_stop)) {
        const Eigen::VectorXd next = gapsOf(*tried, m_id);
        const Eigen::VectorXd slope = next.size() == m_gap.size()
                                          ? Eigen::VectorXd((next - m_gap) / kStep_mm)
                                          : Eigen::VectorXd();
        if (slope.squaredNorm() > 1e-12) {
          const double by = -slope.dot(m_gap) / slope.squaredNorm();
          if ((m_gap + by * slope).norm() < 1e-5) return {by};
        }
      }
    // Where a ring jams the nearest shut state may change with the step: the gap itself, and half
    // of it (a score moves two panels), are worth a try both ways.
    return {0.5 * m_misfit_mm, -0.5 * m_misfit_mm, m_misfit_mm, -m_misfit_mm};
  }

  bool shuts(const Mend& mend) const {
    constexpr double kSame_rad = radians(0.01);
    const auto solved = changed(m_design, mend, m_motion, m_stop);
    if (!solved || m_stop.stop_requested() || !solved->impossible().empty()) return false;
    if (shutGap_mm(m_id, *solved) >= kExactClosure) return false;
    const auto [low, high] = rangeOf(*solved, m_id);
    return low <= solved->assembly().low_rad + kSame_rad && high >= m_range.second - kSame_rad;
  }

  const Design& m_design;
  const Motion& m_motion;
  StructureId m_id;
  double m_apart_mm;
  std::stop_token m_stop;
  Eigen::VectorXd m_gap;
  double m_misfit_mm;
  std::pair<double, double> m_range;
};

} // namespace

std::vector<Mend> changesThatShut(const Design& design, const Motion& motion, StructureId id,
                                  double apart_mm, std::stop_token stop) {
  const Design part = partOf(design, {id});
  std::optional<Motion> ofPart;
  if (part.structures.size() < design.structures.size())
    if (auto assembled = assembleDesign(part))
      ofPart = Motion::trace(std::make_shared<const Assembly>(std::move(assembled).value()), stop,
                             &motion);
  const Motion& near = ofPart ? *ofPart : motion;
  const Design& small = ofPart ? part : design;
  const Solving solving(small, near, id, apart_mm, stop);
  std::vector<std::pair<double, Mend>> found;
  for (const Single& single : singlesOf(small, *small.find(id), near.assembly())) {
    if (stop.stop_requested()) break;
    if (auto one = solving.least(single)) found.push_back(std::move(*one));
  }
  std::ranges::stable_sort(found, {}, [](const auto& one) { return rounded(one.first); });
  std::vector<Mend> mends;
  for (auto& [by, mend] : found)
    mends.push_back(std::move(mend));
  return mends;
}

std::optional<Mend> solveShut(const Design& design, const Motion& motion, StructureId id) {
  const auto mends = changesThatShut(design, motion, id);
  return mends.empty() ? std::nullopt : std::optional(mends.front());
}

} // namespace hinge
