// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/folded_wrong.h"
#include "core/contact/contact.h"
#include "core/states/glue_lines.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

/// Paper gives way by that much before it jams.
constexpr double kGives_mm = 1;
constexpr double kShut_deg = 1;
constexpr int kLooks = 36; ///< openings that are looked at

/// A wall that swings through the paper on which it stands: the widest opening at which it would.
void throughItsHost(const Assembly& assembly, const std::optional<StructureId>& owner,
                    FoldedWrong& out) {
  const auto lines = glueLines(assembly);
  const double low = out.motion->low_rad(), high = out.motion->high_rad();
  for (int k = kLooks - 1; k > 0; --k) {
    const Pose pose = out.motion->poseAt(low + (high - low) * k / kLooks);
    for (const GlueLine& line : lines)
      if (assembly.panels[line.wall].owner == owner && line.placedIn(pose) &&
          line.rise(pose) < -std::sin(2 * kLiesOn_rad)) {
        out.what = FoldedWrong::What::Hits, out.at_rad = pose.opening_rad;
        out.panel = line.wall, out.other = line.host;
        return;
      }
  }
}

} // namespace

std::optional<FoldedWrong> foldedWrong(const Assembly& assembly, FoldIndex fold,
                                       std::stop_token stop) {
  auto turned = std::make_shared<Assembly>(assembly);
  Fold& other = turned->folds[fold];
  other.sense = other.sense == FoldSense::Valley ? FoldSense::Mountain : FoldSense::Valley;
  other.shutAngle_rad = -other.shutAngle_rad;
  if (other.start_rad) other.start_rad = -*other.start_rad;
  const auto owner = assembly.panels[other.left].owner;
  // Closed forms know one way to fold it; so it is put together by its mountains and valleys.
  for (Placement& placement : turned->placements)
    if (placement.owner == owner) placement.poses = nullptr;
  FoldedWrong out;
  out.motion = std::make_shared<const Motion>(Motion::trace(turned, stop));
  if (stop.stop_requested()) return std::nullopt;
  const auto& impossible = out.motion->impossible();
  if (owner && std::ranges::count(impossible, *owner) > 0) {
    out.what = FoldedWrong::What::DoesNotMeet;
    out.motion = nullptr;
    return out;
  }
  throughItsHost(*turned, owner, out);
  double low = 0;
  for (const Motion::BlockReport& block : out.motion->blocks())
    if (owner && std::ranges::count(block.owners, *owner) > 0) low = std::max(low, block.low_rad);
  ContactOptions options;
  options.tolerance_mm = kGives_mm;
  if (owner) options.only = {*owner};
  const ContactReport report = findContacts(*out.motion, options, stop);
  if (stop.stop_requested()) return std::nullopt;
  // The card is shut from wide open: what comes first stops it.
  for (const Contact& contact : report.contacts)
    if (contact.to_rad > out.at_rad)
      out.what = FoldedWrong::What::Hits, out.at_rad = contact.to_rad, out.panel = contact.first,
      out.other = contact.second;
  if (low > std::max(out.at_rad, radians(kShut_deg)))
    out.what = FoldedWrong::What::Jams, out.at_rad = low;
  return out;
}

} // namespace hinge
