// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assembly/assembly.h"
#include <algorithm>
#include <cmath>

namespace hinge {

double Drive::angle_rad(double opening_rad) const {
  const double share = std::clamp((opening_rad - from_rad) / (to_rad - from_rad), 0.0, 1.0);
  return shut_rad + (open_rad - shut_rad) * share;
}

double Assembly::baseOpening_rad(double opening_rad) const {
  return openBy_rad < kPi ? std::min(kPi, opening_rad * kPi / openBy_rad) : opening_rad;
}

Iso3 Assembly::rootPose(double opening_rad) const {
  return symmetric ? rotationAboutLine(Vec3::Zero(), Vec3::UnitY(),
                                       0.5 * (kPi - baseOpening_rad(opening_rad)))
                   : Iso3::Identity();
}

std::string letters(int number, char first) {
  constexpr int kLetters = 26;
  std::string text;
  for (int n = number; n > 0; n = (n - 1) / kLetters)
    text.insert(text.begin(), static_cast<char>(first + (n - 1) % kLetters));
  return text;
}

double Lift::stopAt(double share) const {
  const double way = std::abs(most - least);
  if (step > 0 && way > 0) share = std::round(share * way / step) * step / way;
  return std::clamp(share, 0.0, 1.0);
}

double Lift::nextStop(double share) const {
  const double way = std::abs(most - least);
  if (!(step > 0) || way == 0) return 1;
  constexpr double kBeyond = 1e-9;
  return std::min(1.0, (std::floor(share * way / step + kBeyond) + 1) * step / way);
}

Iso3 foldedOver(const Fold& fold, double angle_rad) {
  // The fold line has the same numbers on both sides.
  return rotationAboutLine(lift(fold.from), lift((fold.to - fold.from).normalized()), -angle_rad);
}

std::vector<std::pair<PanelIndex, Iso3>> Assembly::basePoses(double opening_rad) const {
  // Asked for at every step of the motion: places are looked up by the number of the panel, and
  // only the few joints that matter are looked at.
  std::vector<std::pair<PanelIndex, Iso3>> placed{{root, rootPose(opening_rad)}};
  constexpr int kNowhere = -1;
  IndexedVector<PanelIndex, int> at; // in `placed`
  at.assign(panels.size(), kNowhere);
  if (root.valid()) at[root] = 0;
  const auto isPlaced = [&](PanelIndex p) { return at[p] != kNowhere; };
  const auto poseOf = [&](PanelIndex p) { return placed[static_cast<std::size_t>(at[p])].second; };
  const auto place = [&](PanelIndex p, const Iso3& pose) {
    at[p] = static_cast<int>(placed.size());
    placed.push_back({p, pose});
  };
  IndexedVector<PanelIndex, char> driven;
  driven.assign(panels.size(), 0);
  std::vector<JointIndex> made = jointsOfBase;
  for (const Drive& drive : drives)
    for (const PanelIndex p : {folds[drive.fold].left, folds[drive.fold].right}) {
      driven[p] = 1;
      if (panels[p].gluedBy.valid()) made.push_back(panels[p].gluedBy);
    }
  std::ranges::sort(made);
  made.erase(std::unique(made.begin(), made.end()), made.end());
  bool found = true;
  // Places whichever of two is not there yet; `toFirst` maps the second into the first.
  const auto join = [&](PanelIndex first, PanelIndex second, const auto& toFirst) {
    if (isPlaced(first) == isPlaced(second)) return;
    if (isPlaced(first))
      place(second, poseOf(first) * toFirst());
    else
      place(first, poseOf(second) * inverseOf(toFirst()));
    found = true;
  };
  const double base_rad = baseOpening_rad(opening_rad);
  while (found) {
    found = false;
    for (const Drive& drive : drives) {
      const Fold& fold = folds[drive.fold];
      join(fold.left, fold.right, [&] { return foldedOver(fold, drive.angle_rad(base_rad)); });
    }
    // What the base itself glues onto its pages, and tabs from which a drive goes on.
    for (const JointIndex j : made)
      if (const Glue* glue = std::get_if<Glue>(&joints[j]))
        if (!panels[glue->tab].owner || driven[glue->tab])
          join(glue->host, glue->tab, [&] { return glue->tabToHost; });
  }
  for (const JointIndex j : made) {
    const Slide* slide = std::get_if<Slide>(&joints[j]);
    if (slide && slide->pull && isPlaced(slide->first) && !isPlaced(slide->second))
      place(slide->second,
            poseOf(slide->first) * slidInFirst(*slide, slide->pull->at_mm(opening_rad)));
  }
  return placed;
}

Iso3 Assembly::onTable(double opening_rad) const {
  return rootPose(opening_rad); // the second page has turned the other way by as much
}

const Drive* Assembly::driveBetween(const Seat& seat) const {
  const auto ends = std::minmax(seat.sides[0].panel, seat.sides[1].panel);
  for (const Drive& drive : drives)
    if (const Fold& fold = folds[drive.fold]; std::minmax(fold.left, fold.right) == ends)
      return &drive;
  return nullptr;
}

const Seat* Assembly::findSeat(std::string_view key) const {
  const SeatIndex i = seats.find(key);
  return i.valid() ? &seats[i] : nullptr;
}

std::string Assembly::otherSideOf(std::string_view seatKey) const {
  const Seat* seat = findSeat(seatKey);
  if (!seat) return {};
  if (seat->kind() != SeatKind::Face) return seat->twin;
  const Panel& panel = panels[seat->sides[0].panel];
  if (!panel.twin.valid()) return {};
  // The same face of the twin: each panel offers its face and its back.
  for (const Seat& other : seats)
    if (other.kind() == SeatKind::Face && other.sides[0].panel == panel.twin &&
        (other.key == panels[panel.twin].key) == (seat->key == panel.key))
      return other.key;
  return {};
}

FoldIndex Assembly::addFold(Fold fold) {
  const PanelIndex left = fold.left, right = fold.right;
  const FoldIndex index = folds.push(std::move(fold));
  panels[left].folds.push_back(index);
  panels[right].folds.push_back(index);
  return index;
}

JointIndex Assembly::addJoint(Joint joint) {
  const JointIndex index = joints.push(std::move(joint));
  const Glue* glue = std::get_if<Glue>(&joints[index]);
  const Slide* slide = std::get_if<Slide>(&joints[index]);
  if (slide && slide->pull) jointsOfBase.push_back(index);
  if (!glue) return index;
  JointIndex& first = panels[glue->tab].gluedBy;
  if (first.valid() || !panels[glue->tab].owner) jointsOfBase.push_back(index);
  if (!first.valid()) first = index;
  return index;
}

std::vector<Region> gluedOf(const Assembly& assembly, const Glue& glue) {
  const Region& tab = assembly.panels[glue.tab].outline;
  return glue.area.empty() ? std::vector<Region>{tab} : common(tab, glue.area);
}

const Glue* Assembly::glueOf(PanelIndex tab) const {
  const JointIndex first = panels[tab].gluedBy;
  return first.valid() ? std::get_if<Glue>(&joints[first]) : nullptr;
}

std::optional<StructureId> Assembly::ownerOf(const Joint& joint) const {
  if (const Guide* guide = guideOf(joint)) return guide->owner;
  if (const Tie* tie = tieOf(joint)) return tie->owner;
  return panels[std::get<Glue>(joint).tab].owner;
}

std::vector<Edge> cutsIn(const Assembly& assembly, PanelIndex panel) {
  std::vector<Edge> cuts;
  for (const Feature& feature : assembly.pieces[assembly.panels[panel].piece].features)
    if (const Cut* cut = std::get_if<Cut>(&feature); cut && cut->panel == panel)
      cuts.push_back({cut->from, cut->to});
  return cuts;
}

SeatPose seatPose(const Seat& seat, const Iso3& firstPiece, const Iso3& secondPiece) {
  const Iso3 first = firstPiece * seat.sides[0].toPiece,
             second = secondPiece * seat.sides[1].toPiece;
  if (seat.kind() == SeatKind::Face) return {first, kPi};
  const Vec3 u1 = first.linear().col(0), u2 = second.linear().col(0), y = first.linear().col(1);
  const Vec3 n1 = -first.linear().col(2), n2 = second.linear().col(2); // towards the structure
  // The bisector is the sum of the directions or, near 180 degrees where that vanishes, of the
  // facing normals.
  Vec3 z = u1 + u2;
  if (z.dot(n1 + n2) < 0) z = -z;
  z = (n1 + n2).squaredNorm() > z.squaredNorm() ? Vec3(n1 + n2) : z;
  z = (z - z.dot(y) * y).normalized();
  const Vec3 x = y.cross(z);
  const double s = 0.5 * (u2 - u1).dot(x), c = 0.5 * (u1 + u2).dot(z);
  double opening = 2.0 * std::atan2(s, c);
  if (opening < 0) opening += 4.0 * kPi;
  return {frame(first.translation(), x, y, z), opening};
}

double seatDepth_mm(const Seat& seat, int side, const Assembly& assembly) {
  const SeatSide& s = seat.sides[static_cast<std::size_t>(side)];
  const bool face = seat.kind() == SeatKind::Face;
  const Vec3 from = s.toPiece * (face ? Vec3(0.5 * seat.length_mm, 0.01, 0)
                                      : Vec3(0.01, 0.5 * seat.length_mm, 0));
  const Vec3 along = s.toPiece.linear().col(face ? 1 : 0);
  return reachInside(assembly.panels[s.panel].outline.rim, from.head<2>(), along.head<2>());
}

} // namespace hinge
