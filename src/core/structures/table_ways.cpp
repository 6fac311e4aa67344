// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/table_ways.h"
#include "core/structures/assemble.h"
#include "core/structures/names.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <fmt/format.h>

namespace hinge {
namespace {

/// Every length but the place and the held ones, in half millimetres; tabs only as far as they
/// still hold.
ParameterValues smaller(ParameterTable table, const ParameterValues& values, double scale,
                        double leastTab_mm) {
  ParameterValues out = values;
  for (const ParameterSpec& spec : table) {
    const double scaled = downToLattice(scale * values.find(spec.key)->second);
    double& value = out[std::string(spec.key)];
    if (spec.sense == Sense::Tab)
      // Tabs keep what they need to hold, but a small structure has no room for large ones.
      value = std::max(std::min(value, leastTab_mm), scaled);
    else if (spec.unit == ParameterUnit::Millimetre && spec.role == ParameterRole::Gives &&
             spec.sense != Sense::Place)
      value = std::clamp(scaled, spec.least, spec.most);
  }
  return out;
}

} // namespace

ParameterTable TableWays::rows(const StructureItem& item) const {
  return findStructureKind(item.kind)->parameters;
}
std::vector<MendDirection> TableWays::mends(const StructureItem& item) const {
  return findStructureKind(item.kind)->mendDirections();
}
Result<void> TableWays::settle(StructureItem& item, std::string_view place) const {
  if (item.work || (item.card && !carriesCard()))
    return Error{{"work.unwanted", findStructureKind(item.kind)->name()}, std::string(place)};
  return validate(rows(item), item.values, place);
}
Result<void> TableWays::set(StructureItem& item, std::string_view key, double value) const {
  item.values[std::string(key)] = value;
  return {};
}

void TableWays::mirror(StructureItem& item, const Seat& seat, const Assembly&,
                       const std::string& onto) const {
  item.seat = onto;
  item.values = swapTwins(rows(item), item.values);
  for (const ParameterSpec& spec : rows(item)) {
    double& value = item.values[std::string(spec.key)];
    if (spec.sense == Sense::Hand) value = 1 - value;
    // On a face the image is seen with left and right exchanged.
    if (spec.sense == Sense::Turn && value != 0) value = -value;
    if (spec.sense == Sense::Place && seat.kind() == SeatKind::Face) value = seat.length_mm - value;
  }
}

std::vector<LengthRow> TableWays::lengths(const Design& design, const StructureItem& item,
                                          bool) const {
  std::vector<LengthRow> all;
  for (const ParameterSpec& spec : rows(item))
    if (spec.unit == ParameterUnit::Millimetre)
      all.push_back({lengthRowKey(item.id.text(), spec.key),
                     Text("row-of", nameOf(spec), nameOf(design, item.id)),
                     item.values.find(spec.key)->second,
                     spec.role == ParameterRole::Held || spec.runsAlong()});
  return all;
}
Result<void> TableWays::scale(StructureItem& item, const Design&, double factor,
                              const std::set<std::string>& held) const {
  for (const ParameterSpec& spec : rows(item))
    if (spec.unit == ParameterUnit::Millimetre &&
        !held.contains(lengthRowKey(item.id.text(), spec.key)))
      item.values[std::string(spec.key)] *= factor;
  return settle(item, item.id.text());
}

Result<Draft> TableWays::draft(const DraftPlace& place,
                               const std::function<bool(const Draft&)>& works) const {
  const auto valuesFor = [&](const ParameterValues& wanted) {
    return valuesForNew(place.assembly, place.settings, place.kind.key, place.seat.key, wanted);
  };
  const auto fitted = valuesFor(place.given);
  if (!fitted) return fitted.error();
  const ParameterTable table = place.kind.parameters;
  const std::string at(findSense(table, Sense::Place)->key);
  const double start = fitted->find(at)->second;
  // A structure with a length from its place on stays centred when it shrinks.
  const ParameterSpec* along = findSense(table, Sense::FromPlace);
  const double extent = along ? fitted->find(along->key)->second : 0.0;
  for (double scale : {1.0, 0.8, 0.65, 0.5, 0.4, 0.3, 0.22})
    for (double shift : {0.0, 0.2, -0.2}) {
      ParameterValues wanted = smaller(table, *fitted, scale, place.settings.leastTabDepth_mm);
      wanted[at] = onLattice(start + 0.5 * (1 - scale) * extent + shift * place.seat.length_mm);
      for (const auto& [key, value] : place.given)
        wanted[key] = value;
      if (const auto values = valuesFor(wanted); values && works({*values, {}}))
        return Draft{*values, {}};
    }
  return Draft{*fitted, {}};
}

std::string lengthRowKey(std::string_view owner, std::string_view key) {
  return fmt::format("{}.{}", owner, key);
}

const StructureWays& tableWays() {
  static const TableWays ways;
  return ways;
}

const StructureWays& waysOf(const StructureItem& item) {
  return *findStructureKind(item.kind)->ways;
}

} // namespace hinge
