// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/checks/finding.h"
#include "core/model/snapshot.h"
#include <map>
#include <span>
#include <stop_token>

namespace hinge {

class CheckInput;

/// One check: a rule with its own file, entered in the registry.
struct CheckKind {
  std::string_view key;
  std::vector<Finding> (*run)(const CheckInput&);
};

/// One run of the checks over a snapshot: what every check reads, and what the others have found.
/// For one thread.
class CheckInput {
public:
  /// The motion of the snapshot must be there (see Snapshot::motion). When `these` is not empty, a
  /// costly check may leave out what none of these structures has a part in.
  CheckInput(const Snapshot& of, const Motion& moves, std::stop_token until = {},
             std::vector<StructureId> these = {})
      : snapshot(of), design(of.design()), assembly(moves.assembly()), motion(moves), stop(until),
        only(std::move(these)) {}
  CheckInput(const CheckInput&) = delete;
  CheckInput& operator=(const CheckInput&) = delete;

  const Snapshot& snapshot;
  const Design& design;
  const Assembly& assembly;
  const Motion& motion;
  const std::stop_token stop;
  const std::vector<StructureId> only;

  /// What a check finds; it runs when it is first asked for. A check that builds on another asks
  /// for it here; none may ask for one that builds on itself.
  const std::vector<Finding>& of(const CheckKind& check) const;

  /// What lies on one another, of all panels or of what these structures have a part in. Null after
  /// a stop request.
  std::shared_ptr<const InPlaneReport> inPlane() const;
  std::shared_ptr<const Stacking> stack() const;

private:
  mutable std::shared_ptr<const InPlaneReport> m_inPlane;
  mutable std::map<const CheckKind*, std::vector<Finding>> m_found;
};

std::span<const CheckKind* const> checkKinds();

const CheckKind& shutFlatCheck();
const CheckKind& insideCoverCheck();
const CheckKind& reachCheck();
const CheckKind& tabsCheck();
const CheckKind& mobilityCheck();
const CheckKind& panelsHitCheck();
const CheckKind& platesCheck();
const CheckKind& gluedSideCheck();
const CheckKind& stackingCheck();
const CheckKind& envelopeCheck();
const CheckKind& displayCheck();
const CheckKind& slotsCheck();
const CheckKind& tiesCheck();
const CheckKind& stopsCheck();
const CheckKind& limbsCheck();
const CheckKind& liftsCheck();
const CheckKind& springsCheck();
const CheckKind& cardsWithinCheck();
const CheckKind& pocketsCheck();
const CheckKind& strapsCheck();
const CheckKind& orderCheck();
const CheckKind& holdsCheck();
const CheckKind& feetCheck();
const CheckKind& matsCheck();
const CheckKind& toppersCheck();
const CheckKind& splicesCheck();
const CheckKind& glueCheck();
const CheckKind& foldWaysCheck();
const CheckKind& declaredUseCheck();
const CheckKind& layersAtFoldsCheck();
const CheckKind& inPlaneCheck();
const CheckKind& idleScoresCheck();

} // namespace hinge
