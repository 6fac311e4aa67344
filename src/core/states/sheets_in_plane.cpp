// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/sheets_in_plane.h"
#include "core/contact/swept.h"
#include "core/motion/openings.h"
#include "core/states/lift.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

/// Sine below which two panels are of one direction.
constexpr double kOneWay = 1e-4;
constexpr double kStep_rad = radians(4);
/// The exact ends are left out by this much.
constexpr double kBesideEnd_rad = radians(0.05);

} // namespace

double OnOneAnother::width_mm() const {
  return std::sqrt(area_mm2);
}

const OnOneAnother* SheetMoment::lyingOf(PanelIndex a, PanelIndex b) const {
  const auto it = lying.find(ordered(a, b));
  return it == lying.end() ? nullptr : it->second.get();
}

OrderSolver::Literal SheetMoment::above(PanelIndex a, PanelIndex b, const Vec3& up) const {
  const PanelPair pair = ordered(a, b);
  const bool along = upOf(pair.first).dot(up) > 0;
  return {lying.at(pair)->statement, along == (a == pair.first)};
}

Vec3 SheetMoment::middleOf(PanelIndex a, PanelIndex b) const {
  const PanelPair pair = ordered(a, b);
  return pose.panels[pair.first] * lift(centroidOf(lying.at(pair)->common.front()));
}

SheetsInPlane::SheetsInPlane(const Motion& motion, OrderSolver& solver,
                             std::vector<StructureId> only, std::stop_token stop)
    : m_motion(motion), m_assembly(motion.assembly()), m_solver(solver), m_only(std::move(only)),
      m_stop(stop) {
  gatherGroups();
  for (const auto& [j, slot] : m_assembly.every<Slot>())
    m_slotted.insert(ordered(slot.first, slot.second));
}

bool SheetsInPlane::isWanted(PanelIndex p) const {
  const auto& owner = m_assembly.panels[p].owner;
  return m_only.empty() || (owner && std::ranges::find(m_only, *owner) != m_only.end());
}

void SheetsInPlane::addOwnWay() {
  for (double t : openings()) {
    if (m_stop.stop_requested()) return;
    addMoment(m_motion.poseAt(t), m_last, 0);
    m_last = static_cast<int>(m_moments.size()) - 1;
  }
}

// What a hand moves is not kept together with anything.
void SheetsInPlane::gatherGroups() {
  for (PanelIndex p : m_assembly.panels.indices())
    m_group.push(p.value);
  IndexedVector<PanelIndex, char> lifted;
  lifted.assign(m_assembly.panels.size(), 0);
  for (const Lift& lift : m_assembly.lifts)
    for (PanelIndex p : lift.panels)
      lifted[p] = 1;
  const auto unite = [&](PanelIndex a, PanelIndex b) {
    const int from = m_group[b], to = m_group[a];
    if (from == to) return;
    for (int& group : m_group)
      if (group == from) group = to;
  };
  for (const auto& [j, glue] : m_assembly.every<Glue>())
    unite(glue.host, glue.tab);
  for (const Fold& fold : m_assembly.folds)
    if (fold.rest_rad && lifted[fold.left] == lifted[fold.right]) unite(fold.left, fold.right);
  for (const Carried& carried : m_assembly.carried)
    if (lifted[carried.host] == lifted[carried.panel]) unite(carried.host, carried.panel);
}

std::vector<double> SheetsInPlane::openings() const {
  std::vector<double> all = openingsToLookAt(m_assembly, kStep_rad);
  const double low = m_motion.low_rad(), high = m_motion.high_rad();
  std::erase_if(all,
                [&](double t) { return t <= low + kBesideEnd_rad || t >= high - kBesideEnd_rad; });
  if (high - low > 2 * kBesideEnd_rad) {
    all.insert(all.begin(), low + kBesideEnd_rad);
    all.push_back(high - kBesideEnd_rad);
  }
  return all;
}

/// Hands move things in a card that is open as it is shown, or farther.
void SheetsInPlane::addHands(double shown_rad) {
  constexpr int kMostOpenings = 3, kSteps = 24;
  std::vector<int> shown; // moments of the card's own way
  for (int k = 0; k <= m_last; ++k)
    if (m_moments[static_cast<std::size_t>(k)].pose.opening_rad >= shown_rad - 1e-9)
      shown.push_back(k);
  if (shown.empty() && m_last >= 0) shown = {m_last};
  std::set<int> at;
  for (int k = 0; k < kMostOpenings && !shown.empty(); ++k)
    at.insert(shown[(shown.size() - 1) * static_cast<std::size_t>(k) / (kMostOpenings - 1)]);
  int hand = 0;
  for (const Lift& lift : m_assembly.lifts)
    for (const int from : at) {
      ++hand;
      m_liftOfHand.push_back(&lift);
      int before = from;
      for (int k = 1; k <= kSteps && !m_stop.stop_requested(); ++k) {
        const Pose& rest = m_moments[static_cast<std::size_t>(from)].pose;
        addMoment(lifted(m_assembly, rest, lift, static_cast<double>(k) / kSteps), before, hand);
        before = static_cast<int>(m_moments.size()) - 1;
      }
    }
}

void SheetsInPlane::addMoment(Pose pose, int before, int hand) {
  SheetMoment moment{std::move(pose), before, hand, {}, {}};
  for (const PanelPair& pair : pairsInPlane(moment.pose)) {
    auto lying = lyingAt(moment, pair);
    if (lying->area_mm2 <= kLeastOverlap_mm2) continue;
    moment.beside[pair.first].push_back(pair.second);
    moment.beside[pair.second].push_back(pair.first);
    moment.lying.emplace(pair, std::move(lying));
  }
  m_moments.push_back(std::move(moment));
}

/// Panels that go together lie as they do; they matter only where both lie on something else too.
std::vector<PanelPair> SheetsInPlane::pairsInPlane(const Pose& pose) const {
  std::vector<SweptBox> boxes;
  for (PanelIndex p : m_assembly.panels.indices()) {
    if (!isThere(p, pose)) continue;
    SweptBox box;
    for (const Vec2& c : m_assembly.panels[p].outline.rim) {
      const Vec3 q = pose.panels[p] * lift(c);
      box.low = box.low.cwiseMin(q), box.high = box.high.cwiseMax(q);
    }
    box.low.array() -= kInPlane_mm, box.high.array() += kInPlane_mm;
    box.what = p.value;
    boxes.push_back(box);
  }
  std::vector<PanelPair> pairs, within;
  std::set<PanelIndex> onOthers;
  for (const auto& [a, b] : meetingBoxes(std::move(boxes))) {
    const PanelPair pair{PanelIndex(a), PanelIndex(b)};
    if (!isWanted(pair.first) && !isWanted(pair.second)) continue;
    if (!areInPlane(pose, pair.first, pair.second)) continue;
    if (together(pair.first, pair.second)) {
      within.push_back(pair);
    } else {
      pairs.push_back(pair);
      onOthers.insert(pair.first), onOthers.insert(pair.second);
    }
  }
  for (const PanelPair& pair : within)
    if (onOthers.contains(pair.first) && onOthers.contains(pair.second)) pairs.push_back(pair);
  return pairs;
}

bool SheetsInPlane::areInPlane(const Pose& pose, PanelIndex a, PanelIndex b) const {
  const Vec3 na = pose.panels[a].linear().col(2), nb = pose.panels[b].linear().col(2);
  if (na.cross(nb).norm() > kOneWay) return false;
  return std::ranges::all_of(m_assembly.panels[b].outline.rim, [&](const Vec2& p) {
    return std::abs(na.dot(pose.panels[b] * lift(p) - pose.panels[a].translation())) < kInPlane_mm;
  });
}

/// What they have in common, as it was in the moment before when neither has moved against the
/// other; then it is one statement too.
std::shared_ptr<const OnOneAnother> SheetsInPlane::lyingAt(const SheetMoment& now,
                                                           const PanelPair& pair) {
  const auto& [a, b] = pair;
  const Iso3 bInA = inverseOf(now.pose.panels[a]) * now.pose.panels[b];
  const OnOneAnother* was = nullptr;
  if (now.before >= 0) {
    const SheetMoment& before = m_moments[static_cast<std::size_t>(now.before)];
    const auto known = before.lying.find(pair);
    if (known != before.lying.end()) {
      was = known->second.get();
      const Iso3 then = inverseOf(before.pose.panels[a]) * before.pose.panels[b];
      if ((then.matrix() - bInA.matrix()).cwiseAbs().maxCoeff() < kTouch_mm) return known->second;
    }
  }
  auto lying = std::make_shared<OnOneAnother>();
  lying->common = common(m_assembly.panels[a].outline, mapped(m_assembly.panels[b].outline, bInA));
  for (const Region& part : lying->common)
    lying->area_mm2 += area_mm2(part);
  if (lying->area_mm2 > kLeastOverlap_mm2)
    lying->statement = was ? was->statement : m_solver.addStatement();
  return lying;
}

double SheetsInPlane::reachesPast(const SheetMoment& m, PanelIndex k, const Vec3& from,
                                  const Vec3& to) const {
  const Iso3 home = inverseOf(m.pose.panels[k]);
  const Vec3 a3 = home * from, b3 = home * to;
  if (std::abs(a3.z()) > kInPlane_mm || std::abs(b3.z()) > kInPlane_mm) return 0;
  const Vec2 a = a3.head<2>(), b = b3.head<2>();
  if ((b - a).norm() < kPast_mm) return 0;
  const Vec2 along = (b - a).normalized(), across(-along.y(), along.x());
  const Region& paper = m_assembly.panels[k].outline;
  double most = 0;
  for (const double share : {0.1, 0.3, 0.5, 0.7, 0.9}) {
    const Vec2 at = a + share * (b - a);
    if (!contains(paper, at) || !contains(paper, at + kPast_mm * across) ||
        !contains(paper, at - kPast_mm * across))
      continue;
    const double up = reachInside(paper.rim, at, across),
                 down = reachInside(paper.rim, at, -across);
    most = std::max(most, std::max(kPast_mm, std::min(up, down)));
  }
  return most;
}

} // namespace hinge
