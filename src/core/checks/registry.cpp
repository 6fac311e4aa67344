#include "core/checks/check.h"

namespace hinge {

std::span<const CheckKind* const> checkKinds() {
  static const CheckKind* const all[] = {
      &shutFlatCheck(),    &reachCheck(),    &holdsCheck(),    &mobilityCheck(),  &panelsHitCheck(),
      &gluedSideCheck(),   &stackingCheck(), &slotsCheck(),    &softLinksCheck(), &stopsCheck(),
      &limbsCheck(),       &pocketsCheck(),  &strapsCheck(),   &feetCheck(),      &orderCheck(),
      &insideCoverCheck(), &tabsCheck(),     &envelopeCheck(), &displayCheck()};
  return all;
}

} // namespace hinge
