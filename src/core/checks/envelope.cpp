// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/envelope.h"
#include "core/checks/check.h"
#include "core/states/shut_state.h"

// Fits the envelope: the shut card with its thickness goes in; the usual room on every side makes
// it go in easily.

namespace hinge {
namespace {

std::vector<Finding> checkEnvelope(const CheckInput& in) {
  const EnvelopeSize envelope = envelopeByKey(in.design.settings.envelope);
  if (envelope.long_mm <= 0 || in.motion.anyLoose() || !in.motion.shuts())
    return {}; // loose paper has no one size
  const auto laid = in.snapshot.laid(in.stop);
  if (!laid) return {};
  const ShutState shut = shutState(in.motion, in.design, *laid, 2.0);
  const double never =
      shortfall_mm(envelope, envelopeFor(shut.width_mm, shut.height_mm, shut.thickness_mm, 0));
  const double tight =
      shortfall_mm(envelope, envelopeFor(shut.width_mm, shut.height_mm, shut.thickness_mm,
                                         starting::kEnvelopeRoom_mm));
  if (tight <= 0) return {};
  Finding f{never > 0 ? "envelope-small" : "envelope-tight",
            never > 0 ? Severity::Spoils : Severity::Advice,
            {"card"}};
  f.amount = never > 0 ? never : tight;
  f.detail = nameOf(envelope);
  return {f};
}

} // namespace

const CheckKind& envelopeCheck() {
  static const CheckKind kind{"envelope", checkEnvelope};
  return kind;
}

} // namespace hinge
