// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/propose.h"
#include "core/checks/analysis.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

/// Every length but the position and the held ones, in half millimetres; tabs only as far as they
/// still hold.
ParameterValues scaled(const StructureKind& kind, const ParameterValues& values, double scale,
                       double leastTab_mm) {
  ParameterValues out = values;
  for (const ParameterSpec& spec : kind.parameters)
    if (spec.unit == ParameterUnit::Millimetre && spec.role == ParameterRole::Gives &&
        spec.key != "position")
      out[std::string(spec.key)] =
          std::clamp(downToLattice(scale * values.find(spec.key)->second), spec.least, spec.most);
  // Tabs keep what they need to hold, but a small structure has no room for large ones.
  if (const auto tab = out.find("tab"); tab != out.end())
    tab->second = std::max(std::min(tab->second, leastTab_mm), downToLattice(scale * tab->second));
  return out;
}

/// Nothing that the new structure has a part in spoils the card.
bool works(const Added& added, std::stop_token stop) {
  const auto analysis = analyse(added.design, stop);
  return analysis && std::ranges::none_of(analysis->findings, [&](const Finding& f) {
           return f.severity == Severity::Spoils &&
                  std::ranges::find(f.owners, added.id) != f.owners.end();
         });
}

bool works(const Design& design, std::string_view kind, std::string_view seat,
           const ParameterValues& values, std::stop_token stop) {
  const auto added = addStructure(design, kind, seat, values);
  return added && works(*added, stop);
}

} // namespace

Result<ParameterValues> proposeValues(const Design& design, std::string_view kindKey,
                                      std::string_view seatKey, const ParameterValues& given,
                                      std::stop_token stop) {
  const auto assembled = assembleDesign(design);
  if (!assembled) return assembled.error();
  const auto fitted = valuesForNew(*assembled, design.settings, kindKey, seatKey, given);
  if (!fitted) return fitted;
  const StructureKind& kind = *findStructureKind(kindKey);
  const double length = assembled->findSeat(seatKey)->length_mm,
               start = fitted->find("position")->second;
  // A structure with a length along the fold stays centred when it shrinks.
  const auto own = fitted->find("length");
  const double extent = own != fitted->end() ? own->second : 0.0;
  for (double scale : {1.0, 0.8, 0.65, 0.5, 0.4, 0.3, 0.22})
    for (double shift : {0.0, 0.2, -0.2}) {
      ParameterValues wanted = scaled(kind, *fitted, scale, design.settings.leastTabDepth_mm);
      wanted["position"] = onLattice(start + 0.5 * (1 - scale) * extent + shift * length);
      for (const auto& [key, value] : given)
        wanted[key] = value;
      const auto values = valuesForNew(*assembled, design.settings, kindKey, seatKey, wanted);
      if (stop.stop_requested()) return fitted;
      if (values && works(design, kindKey, seatKey, *values, stop)) return values;
    }
  return fitted;
}

Result<Added> addProposed(const Design& design, std::string_view kindKey, std::string_view seatKey,
                          const ParameterValues& given, std::stop_token stop) {
  const StructureKind* kind = findStructureKind(kindKey);
  if (!kind || !kind->freePiece) {
    const auto values = proposeValues(design, kindKey, seatKey, given, stop);
    if (!values) return values.error();
    return addStructure(design, kindKey, seatKey, *values);
  }
  const auto assembled = assembleDesign(design);
  if (!assembled) return assembled.error();
  const auto values = valuesForNew(*assembled, design.settings, kindKey, seatKey, given);
  if (!values) return values.error();
  // In the middle of the fold, or beside what stands there, or smaller.
  const Seat& seat = *assembled->findSeat(seatKey);
  std::optional<Added> first;
  for (double scale : {1.0, 0.7, 0.5, 0.35})
    for (double shift : {0.0, 0.2, -0.2, 0.35, -0.35}) {
      const auto work = kind->startingWork(seat, *assembled, design.settings, scale);
      if (!work) break;
      ParameterValues at = *values;
      if (!given.contains("position")) at["position"] = onLattice(shift * seat.length_mm);
      auto added = addStructure(design, kindKey, seatKey, at, work);
      if (!added) return added;
      if (stop.stop_requested() || works(*added, stop)) return added;
      if (!first) first = std::move(added).value();
    }
  if (!first)
    return Error{"work.none", "no piece can be proposed here; put its joints into the project file",
                 std::string(seatKey)};
  return *first;
}

} // namespace hinge
