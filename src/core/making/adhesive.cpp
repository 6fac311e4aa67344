// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/adhesive.h"
#include <algorithm>
#include <array>

namespace hinge {

std::span<const AdhesiveFacts> knownAdhesives() {
  static constexpr std::array<AdhesiveFacts, 5> all{{
      {Adhesive::WetGlue, "wet-glue", 20, 120, 1800, false, 0, 0.006, false},
      {Adhesive::StrongTape, "strong-tape", 0, 2, 0, true, 6, 0, false},
      {Adhesive::GlueStick, "glue-stick", 10, 30, 600, false, 0, 0.004, false},
      {Adhesive::Pads, "pads", 0, 2, 0, true, 5, 0, false},
      {Adhesive::SolventGlue, "solvent-glue", 10, 60, 900, false, 0, 0.008, true},
  }};
  return all;
}

const AdhesiveFacts& factsOf(Adhesive adhesive) {
  return *std::ranges::find(knownAdhesives(), adhesive, &AdhesiveFacts::adhesive);
}

std::optional<Adhesive> adhesiveFromKey(std::string_view key) {
  const auto found = std::ranges::find(knownAdhesives(), key, &AdhesiveFacts::key);
  return found == knownAdhesives().end() ? std::nullopt : std::optional(found->adhesive);
}

double MakingWays::pressed_s(Adhesive adhesive) const {
  const auto own = holds_s.find(adhesive);
  return own == holds_s.end() ? factsOf(adhesive).holds_s : own->second;
}

std::string_view keyOf(Closing closing) {
  return closing == Closing::ShutOnIt ? "shut" : "marks";
}

std::optional<Closing> closingFromKey(std::string_view key) {
  if (key == "shut") return Closing::ShutOnIt;
  if (key == "marks") return Closing::OnMarks;
  return std::nullopt;
}

} // namespace hinge
