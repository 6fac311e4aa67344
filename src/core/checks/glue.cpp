// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/evidence.h"
#include "core/paper/starting_values.h"
#include <algorithm>
#include <cmath>

// Glue and pins have paper under them: what is glued lies on the paper of its host with enough of
// its area, openings do not count, and a pin goes through paper on both sides.

namespace hinge {
namespace {

constexpr double kLeastHeld_mm2 = 1e-3; ///< rounding of what is cut out of one another

double areaOf_mm2(const std::vector<Region>& parts) {
  double sum = 0;
  for (const Region& part : parts)
    sum += area_mm2(part);
  return sum;
}

/// How much of a glued panel's paper lies on paper of its host.
double held_mm2(const Assembly& assembly, const Glue& glue) {
  double held = 0;
  const Region& host = assembly.panels[glue.host].outline;
  for (const Region& part : gluedOf(assembly, glue))
    held += areaOf_mm2(common(mapped(part, glue.tabToHost), host));
  return held;
}

/// Tabs that are told to stick out, or to lie across a fold: what holds them follows from that.
bool isTold(const CheckInput& in, PanelIndex tab) {
  return std::ranges::any_of(in.of(tabsCheck()), [&](const Finding& f) {
    return f.severity == Severity::Spoils && f.elements.front() == in.assembly.panels[tab].key;
  });
}

/// One finding for a structure: its worst.
void keepWorst(Finding f, std::vector<Finding>& found) {
  const auto same = std::ranges::find_if(found, [&](const Finding& other) {
    return other.code == f.code && other.owners == f.owners;
  });
  if (same == found.end())
    found.push_back(std::move(f));
  else if (f.amount > same->amount)
    *same = std::move(f);
}

void lookAtGlue(const CheckInput& in, std::vector<Finding>& found) {
  for (const auto& [j, glue] : in.assembly.every<Glue>()) {
    // Of a speck of paper half is enough.
    const double own = area_mm2(in.assembly.panels[glue.tab].outline);
    const double enough = std::min(starting::kLeastGlue_mm2, 0.5 * own);
    const double held = held_mm2(in.assembly, glue);
    if (held >= enough - kLeastHeld_mm2 || isTold(in, glue.tab)) continue;
    const bool none = held < kLeastHeld_mm2;
    Finding f = findingOn(in, none ? "glue-on-nothing" : "glue-little", Severity::Spoils,
                          {glue.tab, glue.host});
    f.amount = (enough - held) / std::sqrt(enough); // of a spot so wide
    f.detail = {"as-it-is", Millimetres{std::sqrt(held)}};
    keepWorst(std::move(f), found);
  }
}

void lookAtPins(const CheckInput& in, std::vector<Finding>& found) {
  for (const auto& [j, pin] : in.assembly.every<Pivot>()) {
    double off = 0;
    const auto look = [&](PanelIndex panel, const Iso3& frame) {
      const Vec2 at = frame.translation().head<2>();
      const Region& paper = in.assembly.panels[panel].outline;
      if (!contains(paper, at)) off = std::max(off, distanceToOutline(paper, at));
    };
    look(pin.first, pin.onFirst), look(pin.second, pin.onSecond);
    if (off <= 0) continue;
    Finding f = findingOn(in, "pin-in-the-open", Severity::Spoils, {pin.second, pin.first});
    f.amount = off;
    keepWorst(std::move(f), found);
  }
}

std::vector<Finding> checkGlue(const CheckInput& in) {
  std::vector<Finding> found;
  lookAtGlue(in, found);
  lookAtPins(in, found);
  return found;
}

} // namespace

const CheckKind& glueCheck() {
  static const CheckKind kind{"glue", checkGlue};
  return kind;
}

} // namespace hinge
