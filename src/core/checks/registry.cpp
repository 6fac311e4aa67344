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

std::span<const CheckKind* const> checkKinds() {
  static const CheckKind* const all[] = {
      &shutFlatCheck(),      &reachCheck(),       &holdsCheck(),       &mobilityCheck(),
      &panelsHitCheck(),     &platesCheck(),      &gluedSideCheck(),   &stackingCheck(),
      &slotsCheck(),         &tiesCheck(),        &stopsCheck(),       &limbsCheck(),
      &pocketsCheck(),       &strapsCheck(),      &feetCheck(),        &orderCheck(),
      &liftsCheck(),         &springsCheck(),     &cardsWithinCheck(), &insideCoverCheck(),
      &tabsCheck(),          &envelopeCheck(),    &displayCheck(),     &toppersCheck(),
      &matsCheck(),          &splicesCheck(),     &glueCheck(),        &foldWaysCheck(),
      &layersAtFoldsCheck(), &declaredUseCheck(), &inPlaneCheck()};
  return all;
}

} // namespace hinge
