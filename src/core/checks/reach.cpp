// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/motion/assembler.h"
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

Vec3 middleOf(const CheckInput& in, const std::optional<StructureId>& id, double opening_rad) {
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

/// Of a piece that is joined to nothing yet that is all there is to say.
Finding impossible(const CheckInput& in, const std::string& key,
                   const std::optional<StructureId>& owner) {
  const StructureItem* item = owner ? in.design.find(*owner) : nullptr;
  const bool loose = item && item->work && item->work->joints.empty();
  Finding f{loose ? "unjoined" : "impossible", Severity::Spoils, {key}};
  if (owner) f.owners = {*owner};
  f.to_rad = kPi, f.amount = 180, f.unit = AmountUnit::Degree, f.show_rad = 0.5 * kPi;
  return f;
}

/// Says by how much a free piece misses closing, and where.
void tellMiss(const CheckInput& in, StructureId id, Finding& f) {
  constexpr int kTries = 24;
  const Mechanism& m = in.motion.mechanism();
  const double opening = 0.5 * (in.motion.low_rad() + in.motion.high_rad());
  const Pose pose = in.motion.poseAt(opening);
  std::vector<char> placed(m.bodies.size(), 0);
  BodyPoses poses;
  poses.assign(m.bodies.size(), Iso3::Identity());
  for (PanelIndex p : in.assembly.panels.indices())
    if (pose.placed[p]) {
      poses[m.bodyOf[p]] = pose.panels[p] * inverseOf(m.inBody[p]);
      placed[static_cast<std::size_t>(m.bodyOf[p].value)] = 1;
    }
  std::vector<BodyIndex> loose;
  for (PanelIndex p : in.assembly.panels.indices())
    if (const BodyIndex b = m.bodyOf[p]; in.assembly.panels[p].owner == id &&
                                         !placed[static_cast<std::size_t>(b.value)] &&
                                         std::ranges::find(loose, b) == loose.end())
      loose.push_back(b);
  const auto miss = nearestMiss(m, in.assembly, loose, placed, poses, kTries);
  if (!miss || !miss->fold.valid()) return;
  const Fold& fold = in.assembly.folds[miss->fold];
  f.detail = Text(miss->closesTheOtherWay() ? "other-way" : "apart-at", fold.label);
  f.amount = miss->gap_mm, f.unit = AmountUnit::Millimetre;
  f.show_rad = opening;
}

/// A block against the openings that it has to follow: those of what it stands on. `exact`: its
/// widths are right, so that it is a stop that holds it.
void compare(const CheckInput& in, const Motion::BlockReport& block,
             const Motion::BlockReport* host, const std::optional<StructureId>& owner, bool exact,
             std::vector<Finding>& found) {
  constexpr double kSame_rad = radians(1e-3);
  constexpr double kBeside_rad = radians(0.2); // shown where it still holds together
  const std::string key = owner ? owner->text() : "card";
  const double last = in.assembly.high_rad, first = in.assembly.low_rad;
  const double hostHigh = host ? host->high_rad : last, hostLow = host ? host->low_rad : first;
  Finding f{"taut", Severity::Spoils, {key}};
  if (owner) f.owners = {*owner};
  f.unit = AmountUnit::Degree;
  if (block.high_rad < hostHigh - kSame_rad) {
    f.from_rad = block.high_rad, f.to_rad = last,
    f.show_rad = std::max(block.low_rad, block.high_rad - kBeside_rad);
    f.amount = degrees(last - block.high_rad);
    f.place = middleOf(in, owner, block.high_rad);
    found.push_back(f);
  }
  if (block.low_rad > hostLow + kSame_rad && exact) {
    f.code = "jammed", f.from_rad = first, f.to_rad = block.low_rad,
    f.show_rad = std::min(block.high_rad, block.low_rad + kBeside_rad);
    f.amount = degrees(block.low_rad - first);
    f.place = middleOf(in, owner, block.low_rad);
    found.push_back(f);
  }
}

/// Sections of the base's own sheets that the joints decide.
void lookAtBase(const CheckInput& in, std::vector<Finding>& found) {
  for (const auto& block : in.motion.blocks()) {
    if (!block.owners.empty() || block.panels.empty() || block.looseBy >= 0) continue;
    if (block.low_rad > block.high_rad)
      found.push_back(impossible(in, "card", {}));
    else
      compare(in, block, nullptr, {}, block.shutMisfit_mm <= in.assembly.closureLimit_mm, found);
    if (!found.empty()) return; // the other sections have the same trouble
  }
}

std::vector<Finding> checkReach(const CheckInput& in) {
  std::vector<Finding> found;
  lookAtBase(in, found);
  for (const StructureItem& item : in.design.structures) {
    const auto hostId = ownerOfKey(item.seat);
    if (std::ranges::find(in.motion.impossible(), item.id) != in.motion.impossible().end()) {
      // What stands on an impossible structure is only a victim of it.
      if (hostId &&
          std::ranges::find(in.motion.impossible(), *hostId) != in.motion.impossible().end())
        continue;
      found.push_back(impossible(in, item.id.text(), item.id));
      if (item.work && found.back().code == "impossible") tellMiss(in, item.id, found.back());
      continue;
    }
    const auto* block = blockOf(in.motion, item.id);
    if (!block) continue;
    if (block->low_rad > block->high_rad) { // its rings close at no opening at all
      found.push_back(impossible(in, item.id.text(), item.id));
      continue;
    }
    // Where loose panels stop on the way down is not decided; where they are taut is.
    const bool loose = block->looseBy >= 0;
    compare(in, *block, hostId ? blockOf(in.motion, *hostId) : nullptr, item.id,
            !loose && closesAsPaperGives(item, in.motion), found);
  }
  return found;
}

} // namespace

const CheckKind& reachCheck() {
  static const CheckKind kind{"taut", checkReach};
  return kind;
}

} // namespace hinge
