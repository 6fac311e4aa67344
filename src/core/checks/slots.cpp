// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

// Slots: both slits together must be as deep as the panels are high where they cross, and a piece
// with several slots must be able to go into all of them at once: at some opening their directions
// are the same.

namespace hinge {
namespace {

void addOwners(const CheckInput& in, const Slot& h, Finding& f) {
  for (PanelIndex p : {h.second, h.first}) {
    f.elements.push_back(in.assembly.panels[p].key);
    const auto& owner = in.assembly.panels[p].owner;
    if (owner && std::ranges::find(f.owners, *owner) == f.owners.end()) f.owners.push_back(*owner);
  }
}

std::vector<Finding> checkSlots(const CheckInput& in) {
  std::vector<Finding> found;
  const double middle = 0.5 * (in.motion.low_rad() + in.motion.high_rad());
  std::vector<const Slot*> slots;
  for (const auto& [j, slot] : in.assembly.every<Slot>())
    slots.push_back(&slot);
  if (slots.empty()) return found;
  const Pose pose = in.motion.poseAt(middle);
  for (const Slot* h : slots) {
    if (h->slitShort_mm <= kTouch_mm) continue;
    Finding f{"slot-short", Severity::Spoils};
    addOwners(in, *h, f);
    f.amount = h->slitShort_mm, f.to_rad = kPi, f.show_rad = middle;
    if (pose.placed[h->first]) f.place = pose.panels[h->first] * h->onFirst.translation();
    found.push_back(std::move(f));
  }
  // Pieces with several slots.
  for (std::size_t a = 0; a < slots.size(); ++a)
    for (std::size_t b = a + 1; b < slots.size(); ++b) {
      if (slots[a]->owner != slots[b]->owner) continue;
      double least = kPi, at = middle;
      for (int k = 1; k < 36; ++k) {
        const double t =
            in.motion.low_rad() + (in.motion.high_rad() - in.motion.low_rad()) * k / 36;
        const Pose p = in.motion.poseAt(t);
        if (!p.placed[slots[a]->first] || !p.placed[slots[b]->first]) continue;
        const Vec3 u = (p.panels[slots[a]->first] * slots[a]->onFirst).linear().col(1),
                   v = (p.panels[slots[b]->first] * slots[b]->onFirst).linear().col(1);
        const double angle = std::acos(std::clamp(u.dot(v), -1.0, 1.0));
        if (angle < least) least = angle, at = t;
      }
      if (least <= kParallel_rad || least >= kPi) continue;
      Finding f{"slots-askew", Severity::Spoils};
      addOwners(in, *slots[a], f), addOwners(in, *slots[b], f);
      f.amount = degrees(least), f.unit = AmountUnit::Degree, f.show_rad = at, f.to_rad = kPi;
      found.push_back(std::move(f));
    }
  return found;
}

} // namespace

const CheckKind& slotsCheck() {
  static const CheckKind kind{"slots", checkSlots};
  return kind;
}

} // namespace hinge
