// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/settling.h"
#include "core/edits/laying.h"
#include "core/pieces/placing.h"
#include "core/structures/assemble.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

bool hasRules(const PieceWork& work) {
  return std::ranges::any_of(work.joints, [](const PieceJoint& j) { return !j.rules.empty(); });
}

bool hasRules(const Design& design) {
  return std::ranges::any_of(design.card.sheets,
                             [](const PieceWork& sheet) { return hasRules(sheet); }) ||
         std::ranges::any_of(design.structures, [](const StructureItem& item) {
           return item.work && hasRules(*item.work);
         });
}

} // namespace

Design withPlacesSettled(Design design) {
  if (!hasRules(design)) return design;
  const auto assembled = assembleDesign(design);
  if (!assembled) return design;
  for (const PlacedByRule& placed : assembled->byRule) {
    const auto owner = std::ranges::find_if(
        design.structures, [&](const StructureItem& item) { return item.id == placed.owner; });
    PieceWork* work = nullptr;
    if (!placed.owner)
      work = &design.card.sheets[placed.sheet];
    else if (owner != design.structures.end() && owner->work)
      work = &*owner->work;
    if (!work) continue;
    PieceJoint& joint = work->joints[placed.number];
    joint.to = placed.joint.to, joint.kind = placed.joint.kind;
  }
  return design;
}

Design withoutRules(Design design) {
  const auto clear = [](PieceWork& work) {
    for (PieceJoint& joint : work.joints)
      joint.rules.clear();
  };
  std::ranges::for_each(design.card.sheets, clear);
  for (StructureItem& item : design.structures)
    if (item.work) clear(*item.work);
  return design;
}

Design withDistancesMeasured(Design design) {
  if (!hasRules(design)) return design;
  const auto assembled = assembleDesign(withoutRules(design));
  if (!assembled) return design;
  const auto measure = [&](PieceWork& work) {
    for (PieceJoint& joint : work.joints) {
      if (!assembled->findSeat(joint.on)) continue;
      const Polygon panel = heldPanel(work, joint.at);
      for (PlaceRule& rule : joint.rules) {
        auto* distance = std::get_if<placed::Distance>(&rule);
        if (!distance || distance->distance_mm == 0) continue;
        const auto now =
            distanceNow(*distance, joint, {*assembled, work, panel, "panel", work.joints});
        constexpr double kTidy = 1e9;
        if (now) distance->distance_mm = std::round(*now * kTidy) / kTidy;
      }
    }
  };
  for (StructureItem& item : design.structures)
    if (item.work) measure(*item.work);
  for (PieceWork& sheet : design.card.sheets)
    measure(sheet);
  return design;
}

Result<void> newRulesHold(const Assembly& after, const SheetTarget& target, const PieceWork& before,
                          const PieceWork& now) {
  for (const PlacedByRule& placed : after.byRule) {
    if (!placed.lost || placed.owner != target.piece || placed.sheet != target.sheet) continue;
    const auto& rules = now.joints[placed.number].rules;
    const bool old = std::ranges::any_of(
        before.joints, [&](const PieceJoint& joint) { return joint.rules == rules; });
    if (!old) return Error{placed.lost->message, target.piece ? target.piece->text() : "card"};
  }
  return {};
}

} // namespace hinge
