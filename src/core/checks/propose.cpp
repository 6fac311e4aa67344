// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/checks/propose.h"
#include "core/checks/analysis.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <fmt/format.h>

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
  return add(*draft);
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
