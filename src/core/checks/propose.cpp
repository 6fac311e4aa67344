// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/propose.h"
#include "core/checks/analysis.h"
#include "core/edits/free_lengths.h"
#include "core/edits/rounding.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include "core/units/lattice.h"
#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace hinge {
namespace {

/// Nothing that the new structure has a part in spoils the card.
bool works(const Added& added, std::stop_token stop) {
  const auto analysis = analyse(added.design, stop);
  return analysis && std::ranges::none_of(analysis->findings, [&](const Finding& f) {
           return f.severity == Severity::Spoils &&
                  std::ranges::find(f.owners, added.id) != f.owners.end();
         });
}

/// The lengths of a new structure on the maker's ruler, all others as they are. Nothing when there
/// is no such place in which it works.
std::optional<Added> onRuler(const Added& added, const ParameterValues& given, double step_mm,
                             std::stop_token stop) {
  const auto motion = Snapshot(added.design).motion(stop);
  if (!motion) return std::nullopt;
  std::set<std::string> held;
  for (const FreeLength& length : freeLengthsOf(added.design).all) {
    const auto dot = length.key.find('.');
    if (length.owner != added.id.text())
      held.insert(length.owner);
    else if (given.contains(length.key.substr(dot + 1)))
      held.insert(length.key);
  }
  constexpr std::chrono::seconds kMost(1);
  const auto rounded =
      roundedTo(added.design, *motion, step_mm, held, RoundingKeeps::ShutFlat, kMost, stop);
  if (!rounded) return std::nullopt;
  const Added there{rounded->design, added.id};
  return works(there, stop) ? std::optional(there) : std::nullopt;
}

/// Tabs as deep as an inch ruler has them, where they are as deep as they begin.
Added withInchTabs(Added added, const StructureKind& kind, const ParameterValues& given) {
  for (StructureItem& item : added.design.structures)
    for (const ParameterSpec& spec : kind.parameters)
      if (const auto value = item.values.find(spec.key);
          item.id == added.id && spec.sense == Sense::Tab && !given.contains(spec.key) &&
          value != item.values.end() && value->second == starting::kTabDepth_mm)
        value->second = starting::kTabDepthInch_mm;
  return added;
}

/// What is new in a card in inches begins on eighths, or on sixteenths where that does not work;
/// where neither does, it stays as its kind drafts it.
Added onInches(const Added& added, const StructureKind& kind, const ParameterValues& given,
               std::stop_token stop) {
  for (const Added& from : {withInchTabs(added, kind, given), added})
    for (const double step_mm : {2 * kLatticeInch_mm, kLatticeInch_mm}) {
      if (stop.stop_requested()) return added;
      if (auto there = onRuler(from, given, step_mm, stop)) return *there;
    }
  return added;
}

} // namespace

Result<Added> addProposed(const Design& design, std::string_view kindKey, std::string_view seatKey,
                          const ParameterValues& given, std::stop_token stop) {
  const StructureKind* kind = findStructureKind(kindKey);
  if (!kind) return Error{{"structure.unknown", kindKey}, ""};
  const auto assembled = assembleDesign(design);
  if (!assembled) return assembled.error();
  const Seat* seat = assembled->findSeat(seatKey);
  if (!seat) return Error{{"seat.missing", seatKey}, std::string(kindKey)};
  const auto add = [&](const Draft& draft) {
    return addStructure(design, kindKey, seatKey, draft.values, draft.work);
  };
  const auto draft = kind->ways->draft({*kind, *seat, *assembled, design.settings, given},
                                       [&](const Draft& tried) {
                                         if (stop.stop_requested()) return true;
                                         const auto added = add(tried);
                                         return added && works(*added, stop);
                                       });
  if (!draft) return draft.error();
  auto added = add(*draft);
  if (!added || design.settings.unit != LengthUnit::Inch) return added;
  return onInches(*added, *kind, given, stop);
}

Result<Added> addCardWithin(const Design& design, std::string_view kindKey,
                            std::string_view seatKey, const ParameterValues& given,
                            const CardWithin& card) {
  const StructureKind* kind = findStructureKind(kindKey);
  if (!kind || !kind->ways->carriesCard())
    return Error{{"card-within.no-card", kind ? kind->name() : Text("as-it-is", kindKey)},
                 "--card"};
  const auto assembled = assembleDesign(design);
  if (!assembled) return assembled.error();
  const auto values = valuesForNew(*assembled, design.settings, kindKey, seatKey, given);
  if (!values) return values.error();
  return addStructure(design, kindKey, seatKey, *values, {}, card);
}

} // namespace hinge
