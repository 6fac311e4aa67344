// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/structures/names.h"

namespace hinge {
namespace {

/// What the panel or structure with a key is called.
Text elementName(const CheckInput& in, const std::string& key) {
  if (const PanelIndex panel = in.assembly.findPanel(key); panel.valid())
    return panelName(in.design, in.assembly, panel);
  if (key == "card") return "card";
  if (const auto id = structureIdFromText(key)) return nameOf(in.design, *id);
  return {"as-it-is", key};
}

} // namespace

const std::vector<Finding>& CheckInput::of(const CheckKind& check) const {
  const auto known = m_found.find(&check);
  if (known != m_found.end()) return known->second;
  std::vector<Finding> found = check.run(*this);
  for (Finding& finding : found) {
    finding.check = check.key;
    for (const std::string& key : finding.elements)
      finding.names.push_back(elementName(*this, key));
  }
  return m_found.emplace(&check, std::move(found)).first->second;
}

std::shared_ptr<const InPlaneReport> CheckInput::inPlane() const {
  if (only.empty()) return snapshot.inPlane(stop);
  if (!m_inPlane) {
    auto looked = findInPlaneHits(motion, {radians(design.card.display_deg), only}, stop);
    if (stop.stop_requested()) return nullptr;
    m_inPlane = std::make_shared<const InPlaneReport>(std::move(looked));
  }
  return m_inPlane;
}

std::shared_ptr<const Stacking> CheckInput::stack() const {
  if (only.empty()) return snapshot.stack(stop);
  const auto sheets = inPlane();
  return sheets ? std::make_shared<const Stacking>(stackShut(motion, sheets->order, stop))
                : nullptr;
}

std::span<const CheckKind* const> checkKinds() {
  static const CheckKind* const all[] = {
      &shutFlatCheck(),      &reachCheck(),       &holdsCheck(),       &mobilityCheck(),
      &panelsHitCheck(),     &platesCheck(),      &gluedSideCheck(),   &stackingCheck(),
      &slotsCheck(),         &tiesCheck(),        &stopsCheck(),       &limbsCheck(),
      &pocketsCheck(),       &strapsCheck(),      &feetCheck(),        &orderCheck(),
      &liftsCheck(),         &springsCheck(),     &cardsWithinCheck(), &insideCoverCheck(),
      &tabsCheck(),          &envelopeCheck(),    &displayCheck(),     &toppersCheck(),
      &matsCheck(),          &splicesCheck(),     &glueCheck(),        &foldWaysCheck(),
      &layersAtFoldsCheck(), &declaredUseCheck(), &inPlaneCheck(),     &idleScoresCheck()};
  return all;
}

} // namespace hinge
