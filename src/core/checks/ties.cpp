// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/ties.h"
#include "core/checks/evidence.h"
#include "core/motion/openings.h"
#include "core/units/tolerances.h"
#include <algorithm>

// Bands and films: an elastic band pulls where the card is shown and is nowhere drawn out too far;
// a strip of film is nowhere shorter than the way it spans, nor than the way round what stands
// between its ends.

namespace hinge {
namespace {

/// Paper that stands between the ends: what is tied has to go round it.
void findBlocked(const CheckInput& in, const Tie& tie, double most_mm,
                 std::vector<Finding>& found) {
  Finding f{"tie-blocked", Severity::Spoils};
  for (const double t : openingsToLookAt(in.assembly, kCheckStep_rad)) {
    const Pose pose = t > 0 ? in.motion.poseAt(t) : in.motion.shutPose();
    const auto round = wayRound(tie, in.motion, pose);
    if (!round || !round->over.valid()) continue;
    const double lack = round->needed_mm - most_mm;
    if (lack <= kPaperGives_mm) continue;
    if (f.amount == 0) f.from_rad = t;
    f.to_rad = t;
    if (lack <= f.amount) continue;
    f.elements.clear(), f.owners.clear();
    addPanel(in, tie.panels[1], f), addPanel(in, round->over, f);
    f.amount = lack, f.show_rad = t, f.place = pose.panels[tie.panels[1]] * lift(tie.at[1]);
  }
  if (f.amount > 0) found.push_back(std::move(f));
}

std::vector<Finding> checkTies(const CheckInput& in) {
  std::vector<Finding> found;
  for (const Joint& joint : in.assembly.joints) {
    const Tie* tie = tieOf(joint);
    if (!tie) continue;
    if (in.motion.isLoose(tie->panels[0]) || in.motion.isLoose(tie->panels[1])) continue;
    const TieTravel travel = travelOf(*tie, in.motion, radians(in.design.card.display_deg));
    if (!travel.known) continue;
    const auto make = [&](std::string code, Severity severity, double amount, double from,
                          double to, double show) {
      Finding f{std::move(code),
                severity,
                {in.assembly.panels[tie->panels[1]].key, in.assembly.panels[tie->panels[0]].key}};
      if (tie->owner) f.owners.push_back(*tie->owner);
      f.amount = amount, f.from_rad = from, f.to_rad = to, f.show_rad = show;
      const Pose pose = in.motion.poseAt(show);
      f.place = 0.5 * (pose.panels[tie->panels[0]] * lift(tie->at[0]) +
                       pose.panels[tie->panels[1]] * lift(tie->at[1]));
      found.push_back(std::move(f));
    };
    if (std::holds_alternative<Film>(joint)) {
      if (travel.longest_mm > tie->length_mm + 1e-6)
        make("film-taut", Severity::Spoils, travel.longest_mm - tie->length_mm, travel.tautFrom_rad,
             travel.tautTo_rad, travel.longest_rad);
      else
        findBlocked(in, *tie, tie->length_mm, found);
      continue;
    }
    const double most = starting::kMostStretch * tie->length_mm;
    if (travel.longest_mm > most)
      make("band-drawn", Severity::Spoils, travel.longest_mm - most, travel.longest_rad,
           travel.longest_rad, travel.longest_rad);
    else
      findBlocked(in, *tie, most, found);
    if (travel.shown_mm < tie->length_mm)
      make("band-slack", Severity::Spoils, tie->length_mm - travel.shown_mm, travel.shown_rad,
           travel.shown_rad, travel.shown_rad);
  }
  return found;
}

} // namespace

const CheckKind& tiesCheck() {
  static const CheckKind kind{"ties", checkTies};
  return kind;
}

} // namespace hinge
