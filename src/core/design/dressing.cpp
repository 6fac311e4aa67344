// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/design/dressing.h"
#include <algorithm>
#include <array>
#include <span>

namespace hinge {
namespace {

constexpr std::array<std::string_view, 7> kReaches{"face",      "twins", "part", "alike",
                                                   "displayed", "seen",  "all"};
constexpr std::array<std::string_view, 3> kAtGlue{"under", "over", "around"};
constexpr std::array<std::string_view, 3> kTurns{"upright", "along-fold", "angle"};

constexpr std::array<std::string_view, 3> kFixes{"flat", "pads", "spring"};

template <class Enum>
std::optional<Enum> fromKey(std::span<const std::string_view> keys, std::string_view key) {
  for (std::size_t k = 0; k < keys.size(); ++k)
    if (keys[k] == key) return static_cast<Enum>(k);
  return std::nullopt;
}

} // namespace

bool asksForSight(const Dressing& dressing) {
  return std::ranges::any_of(dressing.rules, [](const DressRule& rule) {
    return rule.reach == DressReach::Displayed || rule.reach == DressReach::Seen;
  });
}

const Topper* Dressing::find(int id) const {
  const auto found = std::ranges::find(toppers, id, &Topper::id);
  return found == toppers.end() ? nullptr : &*found;
}

int Dressing::nextTopper() const {
  int next = 1;
  for (const Topper& topper : toppers)
    next = std::max(next, topper.id + 1);
  return next;
}

std::string_view keyOf(DressReach reach) {
  return kReaches[static_cast<std::size_t>(reach)];
}
std::string_view keyOf(AtGlue how) {
  return kAtGlue[static_cast<std::size_t>(how)];
}
std::string_view keyOf(PatternTurn turn) {
  return kTurns[static_cast<std::size_t>(turn)];
}
std::string_view keyOf(TopperFix fix) {
  return kFixes[static_cast<std::size_t>(fix)];
}
std::optional<TopperFix> topperFixFromKey(std::string_view key) {
  return fromKey<TopperFix>(kFixes, key);
}
std::optional<DressReach> dressReachFromKey(std::string_view key) {
  return fromKey<DressReach>(kReaches, key);
}
std::optional<AtGlue> atGlueFromKey(std::string_view key) {
  return fromKey<AtGlue>(kAtGlue, key);
}
std::optional<PatternTurn> patternTurnFromKey(std::string_view key) {
  return fromKey<PatternTurn>(kTurns, key);
}

} // namespace hinge
