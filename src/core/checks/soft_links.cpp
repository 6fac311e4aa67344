// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/states/links.h"
#include <algorithm>

// Bands and films: an elastic band pulls where the card is shown and is nowhere drawn out too far;
// a strip of film is nowhere shorter than the way it spans.

namespace hinge {
namespace {

std::vector<Finding> run(const CheckInput& in) {
  std::vector<Finding> found;
  for (const Link& link : in.assembly.links) {
    if (in.motion.isLoose(link.panels[0]) || in.motion.isLoose(link.panels[1])) continue;
    const LinkTravel travel = travelOf(link, in.motion, radians(in.design.card.display_deg));
    if (!travel.known) continue;
    const auto make = [&](std::string code, Severity severity, double amount, double from,
                          double to, double show) {
      Finding f{std::move(code),
                severity,
                {in.assembly.panels[link.panels[1]].key, in.assembly.panels[link.panels[0]].key}};
      if (link.owner) f.owners.push_back(*link.owner);
      f.amount = amount, f.from_rad = from, f.to_rad = to, f.show_rad = show;
      const Pose pose = in.motion.poseAt(show);
      f.place = 0.5 * (pose.panels[link.panels[0]] * lift(link.at[0]) +
                       pose.panels[link.panels[1]] * lift(link.at[1]));
      found.push_back(std::move(f));
    };
    if (!link.elastic) {
      if (travel.longest_mm > link.length_mm + 1e-6)
        make("film-taut", Severity::Spoils, travel.longest_mm - link.length_mm, travel.tautFrom_rad,
             travel.tautTo_rad, travel.longest_rad);
      continue;
    }
    const double most = starting::kMostStretch * link.length_mm;
    if (travel.longest_mm > most)
      make("band-drawn", Severity::Spoils, travel.longest_mm - most, travel.longest_rad,
           travel.longest_rad, travel.longest_rad);
    if (travel.shown_mm < link.length_mm)
      make("band-slack", Severity::Spoils, link.length_mm - travel.shown_mm, travel.shown_rad,
           travel.shown_rad, travel.shown_rad);
  }
  return found;
}

} // namespace

const CheckKind& softLinksCheck() {
  static const CheckKind kind{
      "soft-links", "Bands and films",
      "Bands pull where the card is shown and are nowhere drawn too far; films are long enough",
      run};
  return kind;
}

} // namespace hinge
