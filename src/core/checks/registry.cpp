// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"

namespace hinge {

const std::vector<Finding>& CheckInput::of(const CheckKind& check) const {
  const auto known = m_found.find(&check);
  if (known != m_found.end()) return known->second;
  std::vector<Finding> found = check.run(*this);
  for (Finding& finding : found)
    finding.check = check.key;
  return m_found.emplace(&check, std::move(found)).first->second;
}

std::span<const CheckKind* const> checkKinds() {
  static const CheckKind* const all[] = {
      &shutFlatCheck(),    &reachCheck(),    &holdsCheck(),    &mobilityCheck(),  &panelsHitCheck(),
      &gluedSideCheck(),   &stackingCheck(), &slotsCheck(),    &softLinksCheck(), &stopsCheck(),
      &limbsCheck(),       &pocketsCheck(),  &strapsCheck(),   &feetCheck(),      &orderCheck(),
      &insideCoverCheck(), &tabsCheck(),     &envelopeCheck(), &displayCheck()};
  return all;
}

} // namespace hinge
