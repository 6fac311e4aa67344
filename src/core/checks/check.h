#pragma once
#include "core/checks/finding.h"
#include "core/making/order.h"
#include "core/motion/motion.h"
#include <span>
#include <stop_token>

namespace hinge {

/// What every check reads. All members outlive the call.
struct CheckInput {
  const Design& design;
  const Assembly& assembly;
  const Motion& motion;
  std::stop_token stop;
  /// When not empty, a costly check may leave out what none of these structures has a part in.
  std::vector<StructureId> only;
  const std::vector<Finding>* before =
      nullptr; ///< what earlier checks of the same run have found; may be null
  const AssemblyOrder* order = nullptr; ///< the order of work, if it has been worked out already
};

/// One check: a rule with its own file, entered in the registry.
struct CheckKind {
  std::string_view key, label, meaning;
  std::vector<Finding> (*run)(const CheckInput&);
};

std::span<const CheckKind* const> checkKinds();

const CheckKind& shutFlatCheck();
const CheckKind& insideCoverCheck();
const CheckKind& reachCheck();
const CheckKind& tabsCheck();
const CheckKind& mobilityCheck();
const CheckKind& panelsHitCheck();
const CheckKind& gluedSideCheck();
const CheckKind& stackingCheck();
const CheckKind& envelopeCheck();
const CheckKind& displayCheck();
const CheckKind& slotsCheck();
const CheckKind& softLinksCheck();
const CheckKind& stopsCheck();
const CheckKind& limbsCheck();
const CheckKind& pocketsCheck();
const CheckKind& strapsCheck();
const CheckKind& orderCheck();
const CheckKind& holdsCheck();
const CheckKind& feetCheck();

} // namespace hinge
