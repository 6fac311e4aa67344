// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/check.h"
#include "core/states/stand.h"
#include <algorithm>

// Stands as displayed: the centre of gravity stays over what touches the table, with enough left to
// survive a tilt in every direction.

namespace hinge {
namespace {

std::vector<Finding> checkDisplay(const CheckInput& in) {
  if (in.motion.anyLoose()) return {}; // where its weight hangs is not decided
  const auto known = in.snapshot.stand(in.stop);
  if (!known) return {};
  const Stand& stand = *known;
  const double tip = degrees(stand.leastTip_rad);
  if (!stand.reached || tip >= starting::kStandingTilt_deg) return {};
  Finding f{tip < 0 ? "falls-over" : "tips-easily", tip < 0 ? Severity::Spoils : Severity::Advice};
  f.elements.push_back("card");
  for (const StructureItem& item : in.design.structures)
    f.owners.push_back(item.id);
  f.from_rad = f.to_rad = f.show_rad = stand.opening_rad;
  f.amount = tip < 0 ? -tip : tip, f.unit = AmountUnit::Degree;
  f.place = stand.centre;
  return {f};
}

} // namespace

const CheckKind& displayCheck() {
  static const CheckKind kind{"stands", checkDisplay};
  return kind;
}

} // namespace hinge
