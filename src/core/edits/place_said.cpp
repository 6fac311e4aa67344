// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/place_said.h"
#include "core/edits/settling.h"
#include "core/structures/registry.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <functional>

namespace hinge {
namespace {

constexpr double kAlike_rad = 1e-4; ///< lines that run alike to a hand
constexpr double kMet_mm = 1e-6;

/// A line of the work runs along this edge of a panel: a score, not the rim of the sheet.
bool isScore(const PieceWork& work, const PaperLine& edge) {
  return std::ranges::any_of(work.lines, [&](const WorkLine& line) {
    const auto on = [&](const Vec2& p) { return std::abs(edge.in.dot(p - edge.at)) < kTouch_mm; };
    return line.kind != WorkLine::Kind::Cut && on(line.from) && on(line.to);
  });
}

/// A distance that could be said, and how gladly: the least first.
struct Sayable {
  SaidDistance said;
  Vec2 across; ///< on the face
  double rank = 0;
};

/// All pairs of a line of the panel and one below that run alike.
std::vector<Sayable> sayable(const Assembly& assembly, const PieceWork& work,
                             const HeldSheet& lying, const SeatSide& face) {
  const Iso3 map = onFace(lying);
  const auto vector = [&](const Vec2& v) {
    return Vec2((map.linear() * Vec3(v.x(), v.y(), 0)).head<2>());
  };
  const auto own = ownLines(heldPanel(work, lying.at));
  std::vector<Sayable> all;
  constexpr double kAway_mm = 1e4; ///< more than any paper: order before distance
  for (const auto& [below, line] : linesBelow(assembly, face))
    for (const auto& [name, edge] : own) {
      const Vec2 in = vector(edge.in);
      if (std::abs(cross2(in, line.in)) > kAlike_rad) continue;
      const bool upTo = in.dot(line.in) < 0, score = isScore(work, edge);
      const Vec2 middle = (map * lift(Vec2(edge.at + 0.5 * edge.length_mm * edge.along))).head<2>();
      const double far = line.in.dot(middle - line.at);
      const double exact = std::abs(far) < kMet_mm ? 0 : far;
      // An edge that looks away is said of a score alone: a tab is measured by its fold.
      if (upTo && !score) continue;
      const bool fold = std::holds_alternative<placed::FoldBelow>(below);
      const double rank =
          (exact == 0 ? 0 : 4 * kAway_mm) + (fold ? 0 : kAway_mm) + (score ? 0 : 0.5 * kAway_mm);
      all.push_back({{{name, exact, upTo, below}, middle - far * line.in, middle},
                     line.in,
                     rank + std::abs(far)});
    }
  return all;
}

std::vector<SaidDistance> foldFirst(std::vector<SaidDistance> said) {
  std::ranges::stable_sort(said, std::greater(), [](const SaidDistance& one) {
    return std::holds_alternative<placed::FoldBelow>(one.rule.from);
  });
  return said;
}

std::vector<SaidDistance> saidOfPoint(const Assembly& assembly, const HeldSheet& lying,
                                      const SeatSide& face) {
  std::vector<SaidDistance> said;
  std::optional<Vec2> across;
  auto lines = linesBelow(assembly, face);
  const auto far = [&](const auto& line) { return line.second.in.dot(lying.to - line.second.at); };
  std::ranges::stable_sort(lines, {}, [&](const auto& line) { return std::abs(far(line)); });
  for (const auto& line : lines) {
    if (across && std::abs(cross2(*across, line.second.in)) < 0.5) continue;
    said.push_back(
        {{{}, far(line), false, line.first}, lying.to - far(line) * line.second.in, lying.to});
    if (across) break;
    across = line.second.in;
  }
  return said;
}

/// How far the middle of the panel is from that of a line, along it.
double offMiddle(const PieceWork& work, const HeldSheet& lying, const PaperLine& line) {
  const Iso3 map = onFace(lying);
  double low = 1e300, high = -1e300;
  for (const Vec2& p : heldPanel(work, lying.at)) {
    const double at = line.along.dot((map * lift(p)).head<2>() - line.at);
    low = std::min(low, at), high = std::max(high, at);
  }
  return 0.5 * (low + high - line.length_mm);
}

/// Where no lines meet: the middle of the panel, if it is over that of a line along the distance.
void findMiddles(const Assembly& assembly, const PieceWork& work, const HeldSheet& lying,
                 std::vector<SaidDistance>& said) {
  const auto lines = linesBelow(assembly, assembly.findSeat(lying.on)->sides[0]);
  for (SaidDistance& one : said) {
    if (one.rule.distance_mm == 0) continue;
    const Vec2 way = (one.to - one.from).normalized();
    for (const auto& [name, line] : lines) {
      const bool along = std::abs(cross2(line.along, way)) < kAlike_rad;
      if (!along || std::abs(offMiddle(work, lying, line)) > kMet_mm) continue;
      one.middle = placed::Centred{name};
      break;
    }
  }
}

} // namespace

std::vector<SaidDistance> distancesSaid(const Assembly& assembly, const PieceWork& work,
                                        const HeldSheet& lying) {
  const Seat* seat = assembly.findSeat(lying.on);
  if (!seat) return {};
  const SeatSide& face = seat->sides[0];
  if (!liesFlat(lying)) return foldFirst(saidOfPoint(assembly, lying, face));
  auto all = sayable(assembly, work, lying, face);
  std::ranges::stable_sort(all, {}, &Sayable::rank);
  std::vector<SaidDistance> said;
  std::optional<Vec2> across;
  for (const Sayable& one : all) {
    if (across && std::abs(cross2(*across, one.across)) < 0.5) continue;
    said.push_back(one.said);
    if (across) break;
    across = one.across;
  }
  // What lies askew is told by its point.
  if (said.size() < 2) said = saidOfPoint(assembly, lying, face);
  findMiddles(assembly, work, lying, said);
  return foldFirst(std::move(said));
}

std::vector<PlaceRule> placeSaid(const Assembly& assembly, const PieceWork& work,
                                 const HeldSheet& lying) {
  std::vector<PlaceRule> said;
  for (const SaidDistance& one : distancesSaid(assembly, work, lying))
    said.push_back(one.middle ? PlaceRule(*one.middle) : PlaceRule(one.rule));
  return said;
}

std::vector<PlaceRule> metBy(const std::vector<PlaceRule>& said) {
  std::vector<PlaceRule> met;
  for (const PlaceRule& rule : said) {
    const auto* distance = std::get_if<placed::Distance>(&rule);
    if (!distance || distance->distance_mm == 0) met.push_back(rule);
  }
  return met;
}

namespace {

/// A joint of a piece as a hand would hold it there.
HeldSheet heldAs(const PieceJoint& joint) {
  HeldSheet lying;
  lying.kind = joint.kind.index();
  lying.at = joint.at, lying.on = joint.on, lying.to = joint.to;
  if (const auto lies = startsAs(joint.kind))
    lying.turn_deg = degrees(std::atan2(lies->x.y(), lies->x.x())), lying.byFace = lies->up < 0;
  return lying;
}

/// What two rules say of where a joint lies; nothing when they do not come to the same place. The
/// other end of a piece is level with the first where it is: both follow the same edge then.
std::vector<PlaceRule> saidOf(const Assembly& assembly, const PieceWork& work, std::size_t joint) {
  const HeldSheet lying = heldAs(work.joints[joint]);
  const auto said = placeSaid(assembly, work, lying);
  const auto byPoint = [](const PlaceRule& rule) {
    const auto* distance = std::get_if<placed::Distance>(&rule);
    return distance && std::holds_alternative<std::monostate>(distance->own);
  };
  // What lies askew turns about its point: no edge of the page says where that belongs.
  if (said.size() < 2 || (liesFlat(lying) && std::ranges::any_of(said, byPoint))) return {};
  const auto comesTo = [&](const std::vector<PlaceRule>& rules) {
    const auto laid = laidBy(assembly, work, lying, rules);
    return laid && (laid->to - lying.to).norm() < kMet_mm &&
           std::abs(std::remainder(laid->turn_deg - lying.turn_deg, 360.0)) < 1e-6;
  };
  for (std::size_t other = 0; other < joint; ++other)
    for (const PlaceRule& rule : said) {
      if (work.joints[other].rules.empty()) continue;
      std::vector<PlaceRule> level{rule, placed::Level{work.joints[other].at}};
      if (comesTo(level)) return level;
    }
  return comesTo(said) ? said : std::vector<PlaceRule>();
}

} // namespace

Design keptByRules(const Design& design, const Assembly& assembly,
                   const std::optional<StructureId>& only) {
  Design made = design;
  for (StructureItem& item : made.structures) {
    if (!item.work || (only && item.id != *only)) continue;
    const ParameterSpec* place = findSense(parametersOf(item), Sense::Place);
    if (place && item.values.find(place->key)->second != 0) continue;
    for (std::size_t k = 0; k < item.work->joints.size(); ++k)
      if (PieceJoint& joint = item.work->joints[k]; joint.rules.empty() && !ownerOfKey(joint.on))
        joint.rules = saidOf(assembly, *item.work, k);
  }
  return withPlacesSettled(std::move(made));
}

Result<HeldSheet> laidBy(const Assembly& assembly, const PieceWork& work, const HeldSheet& lying,
                         const std::vector<PlaceRule>& rules) {
  if (!assembly.findSeat(lying.on)) return Error{{"joint.no-face", lying.on}, ""};
  PieceJoint joint;
  joint.at = lying.at, joint.on = lying.on, joint.to = lying.to, joint.rules = rules;
  joint.kind = changedTo(liesFlat(lying) ? 0 : lying.kind, given::Kind());
  if (bool* byFace = byFaceOf(joint.kind)) *byFace = lying.byFace;
  layAs(joint.kind, radians(lying.turn_deg));
  const Polygon panel = heldPanel(work, lying.at);
  const auto placed = placedByRules(joint, {assembly, work, panel, "panel", work.joints});
  if (!placed) return placed.error();
  HeldSheet laid = lying;
  laid.to = placed->to;
  if (const auto lies = startsAs(placed->kind))
    laid.turn_deg = degrees(std::atan2(lies->x.y(), lies->x.x()));
  return laid;
}

} // namespace hinge
