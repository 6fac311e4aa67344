// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/last_few.h"
#include "core/checks/analysis.h"
#include "core/checks/check.h"
#include <algorithm>

// Cards on the card: each must be good by itself. In the large card it is only looked at as it lies
// there, and where its fold is opened by the one below.

namespace hinge {
namespace {

/// How many findings spoil a small card, by itself. The last few are kept: they do not change.
int spoiling(const std::shared_ptr<const Design>& design, std::stop_token stop) {
  static LastFew<std::shared_ptr<const Design>, int> known;
  if (const auto count = known.find(design)) return *count;
  const auto analysis = analyse(*design, stop);
  if (!analysis || !analysis->complete) return 0;
  const auto count = static_cast<int>(
      std::ranges::count(analysis->findings, Severity::Spoils, &Finding::severity));
  known.keep(design, count);
  return count;
}

std::vector<Finding> checkCardsWithin(const CheckInput& in) {
  std::vector<Finding> found;
  for (const StructureItem& item : in.design.structures) {
    if (!item.card) continue;
    const int count = spoiling(item.card->design, in.stop);
    if (count == 0) continue;
    Finding f{"card-within", Severity::Spoils, {item.id.text()}, {item.id}};
    f.amount = count, f.unit = AmountUnit::Count;
    f.show_rad = 0.5 * (in.motion.low_rad() + in.motion.high_rad());
    found.push_back(std::move(f));
  }
  return found;
}

} // namespace

const CheckKind& cardsWithinCheck() {
  static const CheckKind kind{"cards-within", checkCardsWithin};
  return kind;
}

} // namespace hinge
