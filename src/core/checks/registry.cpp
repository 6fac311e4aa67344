#include "core/checks/check.h"

namespace hinge {

std::span<const CheckKind* const> checkKinds() {
  static const CheckKind* const all[] = {&shutFlatCheck(), &reachCheck(),    &mobilityCheck(),
                                         &panelsHitCheck(), &gluedSideCheck(), &stackingCheck(), &slotsCheck(), &softLinksCheck(), &stopsCheck(), &limbsCheck(), &pocketsCheck(), &strapsCheck(), &orderCheck(), &insideCoverCheck(), &tabsCheck(), &envelopeCheck(), &displayCheck()};
  return all;
}

} // namespace hinge
