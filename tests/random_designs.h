// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "support.h"
#ifndef Q_MOC_RUN
#include "core/structures/closure.h"
#include "core/structures/registry.h"
#include <random>
#endif

namespace hinge::test {

class Draw {
public:
  explicit Draw(unsigned seed) : m_random(seed) {}
  double in(double low, double high) {
    return std::uniform_real_distribution<>(low, high)(m_random);
  }
  bool chance(double p) { return in(0, 1) < p; }
  std::size_t below(std::size_t n) {
    return std::uniform_int_distribution<std::size_t>(0, n - 1)(m_random);
  }

  /// Every parameter of the table round its start; half of the designs are made to shut flat.
  ParameterValues values(const StructureKind& kind, const Seat& seat, bool exact) {
    ParameterValues v;
    for (const ParameterSpec& spec : kind.parameters) {
      if (spec.whole())
        v.emplace(spec.key,
                  spec.least +
                      static_cast<double>(below(
                          static_cast<std::size_t>(std::min(3.0, spec.most - spec.least)) + 1)));
      else if (spec.key == "position")
        v.emplace(spec.key, in(0.1, 0.7) * seat.length_mm);
      else if (spec.unit == ParameterUnit::Degree)
        v.emplace(spec.key, in(35, 105));
      else
        v.emplace(spec.key, std::clamp(spec.start * in(0.4, 1.4), spec.least, spec.most));
    }
    if (!exact) return v;
    for (const LinearClosure& closure : kind.closures(seat.shutOpening_rad))
      v[std::string(closure.terms.front().key)] -=
          closure.misfit(v) / closure.terms.front().coefficient;
    return v;
  }

private:
  std::mt19937 m_random;
};

/// Adds a structure with fitted sizes, without the search for sizes that work: that would take most
/// of the time here.
inline void addFitted(Design& design, const char* kind, const ParameterValues& given) {
  design =
      addStructure(design, kind, "gutter",
                   *valuesForNew(*assembleDesign(design), design.settings, kind, "gutter", given))
          ->design;
}

/// A design of up to four structures, each on a seat chosen at random; tables and assembly are
/// respected.
inline Design randomDesign(unsigned seed) {
  Draw draw(seed);
  Design d = card(draw.in(120, 200), draw.in(150, 260));
  const bool exact = draw.chance(0.7);
  for (int k = 0, tries = 0; k < 4 && tries < 20; ++tries) {
    const auto assembly = assembleDesign(d);
    // Faces are many and carry only figures: folds are drawn first.
    std::vector<Seat> folds, faces;
    for (const Seat& s : assembly->seats)
      (s.kind() == SeatKind::Face ? faces : folds).push_back(s);
    const std::vector<Seat>& among = draw.chance(0.15) ? faces : folds;
    const Seat seat = among[draw.below(among.size())];
    std::vector<const StructureKind*> kinds;
    for (const StructureKind* kind : structureKinds())
      if (!kind->ways->carriesWork() && !kind->ways->carriesCard() &&
          kind->standsOn(seat, *assembly))
        kinds.push_back(kind); // free pieces have no table to draw from
    const StructureKind& kind = *kinds[draw.below(kinds.size())];
    const auto added = addStructure(d, kind.key, seat.key, draw.values(kind, seat, exact));
    if (!added || !assembleDesign(added->design)) continue;
    d = added->design;
    ++k;
  }
  return d;
}

} // namespace hinge::test
