// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/structures/closure.h"
#include <algorithm>

// Reaches the opening: a structure whose panels are too short goes taut before the card is open
// (and tears if it is forced); one whose sizes fit at no opening cannot be put together at all; one
// that meets a hard stop on the way down although its widths are right is jammed.

namespace hinge {
namespace {

const Motion::BlockReport* blockOf(const Motion& motion, StructureId id) {
  for (const auto& block : motion.blocks())
    if (std::ranges::find(block.owners, id) != block.owners.end()) return &block;
  return nullptr;
}

Vec3 middleOf(const CheckInput& in, StructureId id, double opening_rad) {
  const Pose pose = in.motion.poseAt(opening_rad);
  Vec3 sum = Vec3::Zero();
  int n = 0;
  for (PanelIndex p : in.assembly.panels.indices())
    if (in.assembly.panels[p].owner == id && pose.placed[p] &&
        in.assembly.panels[p].use == PanelUse::Wall)
      for (const Vec2& c : in.assembly.panels[p].outline.rim)
        sum += pose.panels[p] * lift(c), ++n;
  return n ? Vec3(sum / n) : Vec3::Zero();
}

std::vector<Finding> run(const CheckInput& in) {
  std::vector<Finding> found;
  constexpr double kSame_rad = radians(1e-3);
  constexpr double kBeside_rad = radians(0.2); // shown where it still holds together
  for (const StructureItem& item : in.design.structures) {
    const auto hostId = ownerOfKey(item.seat);
    if (std::ranges::find(in.motion.impossible(), item.id) != in.motion.impossible().end()) {
      // What stands on an impossible structure is only a victim of it.
      if (hostId &&
          std::ranges::find(in.motion.impossible(), *hostId) != in.motion.impossible().end())
        continue;
      Finding f{"impossible", Severity::Spoils, {item.id.text()}, {item.id}};
      f.to_rad = kPi, f.amount = 180, f.unit = AmountUnit::Degree, f.show_rad = 0.5 * kPi;
      found.push_back(std::move(f));
      continue;
    }
    const auto* block = blockOf(in.motion, item.id);
    if (!block || block->looseBy >= 0) continue; // how far loose panels reach is not decided
    if (block->low_rad > block->high_rad) {      // its rings close at no opening at all
      Finding f{"impossible", Severity::Spoils, {item.id.text()}, {item.id}};
      f.to_rad = kPi, f.amount = 180, f.unit = AmountUnit::Degree, f.show_rad = 0.5 * kPi;
      found.push_back(std::move(f));
      continue;
    }
    const auto* host = hostId ? blockOf(in.motion, *hostId) : nullptr;
    const double hostHigh = host ? host->high_rad : kPi, hostLow = host ? host->low_rad : 0.0;
    if (block->high_rad < hostHigh - kSame_rad) {
      Finding f{"taut", Severity::Spoils, {item.id.text()}, {item.id}};
      f.from_rad = block->high_rad, f.to_rad = kPi,
      f.show_rad = std::max(block->low_rad, block->high_rad - kBeside_rad);
      f.amount = degrees(kPi - block->high_rad), f.unit = AmountUnit::Degree;
      f.place = middleOf(in, item.id, block->high_rad);
      found.push_back(std::move(f));
    }
    if (block->low_rad > hostLow + kSame_rad && closesExactly(item, in.motion)) {
      Finding f{"jammed", Severity::Spoils, {item.id.text()}, {item.id}};
      f.to_rad = block->low_rad,
      f.show_rad = std::min(block->high_rad, block->low_rad + kBeside_rad);
      f.amount = degrees(block->low_rad), f.unit = AmountUnit::Degree;
      f.place = middleOf(in, item.id, block->low_rad);
      found.push_back(std::move(f));
    }
  }
  return found;
}

} // namespace

const CheckKind& reachCheck() {
  static const CheckKind kind{"taut", run};
  return kind;
}

} // namespace hinge
