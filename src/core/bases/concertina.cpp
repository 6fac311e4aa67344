// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/chain.h"

// Concertina: leaves that fold to and fro. The lowest fold is a valley, so that all others stack
// above the ground leaf.

namespace hinge {
namespace {

constexpr ParameterSpec kConcertina[] = {
    {"leaves", {"size.concertina.leaves"}, ParameterUnit::Count, 3, 12, 3, ParameterRole::Held, ""},
    {"rest",
     {"size.concertina.rest"},
     ParameterUnit::Millimetre,
     5,
     1000,
     130,
     ParameterRole::Gives,
     ""},
    {"open", {"size.concertina.open"}, ParameterUnit::Degree, 5, 180, 180, ParameterRole::Held, ""},
};

ParameterValues fitConcertina(const CardBase& card) {
  return {{"leaves", 3}, {"rest", card.pageDepth_mm()}, {"open", 180}};
}

Result<void> buildConcertina(const CardBase& card, AssemblyBuilder& builder) {
  const auto count = static_cast<std::size_t>(card.value("leaves"));
  std::vector<Leaf> leaves;
  std::vector<Crease> creases;
  for (std::size_t k = 0; k < count; ++k) {
    const char letter = static_cast<char>('a' + k);
    leaves.push_back({std::string("page-") + letter, Text("page", std::string(1, letter)),
                      k + 1 == count ? card.pageDepth_mm() : card.value("rest")});
  }
  // The lowest fold is a valley, so that the others stack above it; from there mountain and valley
  // take turns.
  for (std::size_t k = 0; k + 1 < count; ++k)
    creases.push_back(
        {(count - 2 - k) % 2 == 0 ? FoldSense::Valley : FoldSense::Mountain, card.value("open")});
  buildChain(builder, leaves, creases, count - 1, card.gutterLength_mm());
  return builder.status();
}

} // namespace

const BaseKind& concertinaBase() {
  static const BaseKind kind{"concertina",    kConcertina, fitConcertina,
                             buildConcertina, 90,          Rests::OnEdge};
  return kind;
}

} // namespace hinge
