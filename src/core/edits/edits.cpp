// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/edits.h"
#include "core/edits/dressing.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <fmt/format.h>

namespace hinge {

Result<Added> addStructure(const Design& design, std::string_view kind, std::string_view seat,
                           const ParameterValues& values, const std::optional<PieceWork>& work,
                           const std::optional<CardWithin>& card) {
  const StructureKind* recipe = findStructureKind(kind);
  if (!recipe) return Error{{"structure.unknown", kind}, ""};
  if (design.nextId > kLargestStructureNumber) return Error{"structure.numbers", ""};
  Added added{design, StructureId{design.nextId}};
  ++added.design.nextId;
  StructureItem item{added.id, std::string(kind), std::string(seat), "", values, "", work, card,
                     ""};
  if (auto settled = recipe->ways->settle(item, kind); !settled) return settled.error();
  added.design.structures.push_back(std::move(item));
  return added;
}

Result<Design> setValues(const Design& design, StructureId id, const ParameterValues& changes) {
  Design edited = design;
  const auto it = std::ranges::find(edited.structures, id, &StructureItem::id);
  if (it == edited.structures.end()) return Error{{"structure.missing", id.text()}, ""};
  for (const auto& [key, value] : changes)
    if (auto done = waysOf(*it).set(*it, key, value); !done) return done.error();
  if (auto valid = validate(parametersOf(*it), it->values, id.text()); !valid) return valid.error();
  return edited;
}

Result<Design> setWork(const Design& design, StructureId id, const PieceWork& work) {
  Design edited = design;
  const auto it = std::ranges::find(edited.structures, id, &StructureItem::id);
  if (it == edited.structures.end() || !waysOf(*it).carriesWork())
    return Error{{"structure.missing/piece", id.text()}, ""};
  it->work = work;
  if (auto settled = waysOf(*it).settle(*it, id.text()); !settled) return settled.error();
  return edited;
}

Result<Design> removeStructure(const Design& design, StructureId id) {
  if (!design.find(id)) return Error{{"structure.missing", id.text()}, ""};
  const auto gone = standingOn(design, id);
  Design edited = design;
  std::erase_if(edited.structures, [&](const StructureItem& item) {
    return std::ranges::find(gone, item.id) != gone.end();
  });
  edited.dressing = undressed(std::move(edited.dressing), gone);
  std::erase_if(edited.splices, [&](const Splice& splice) {
    const auto owner = ownerOfKey(splice.panel);
    return owner && std::ranges::find(gone, *owner) != gone.end();
  });
  return edited;
}

Result<Design> setCardWithin(const Design& design, StructureId id, const CardWithin& card) {
  Design edited = design;
  const auto it = std::ranges::find(edited.structures, id, &StructureItem::id);
  if (it == edited.structures.end() || !waysOf(*it).carriesCard())
    return Error{{"card-within.none", id.text()}, ""};
  it->card = card;
  if (auto settled = waysOf(*it).settle(*it, id.text()); !settled) return settled.error();
  return edited;
}

Result<Design> setCard(const Design& design, const CardBase& card) {
  if (auto valid = validateCard(card); !valid) return valid.error();
  Design edited = design;
  edited.card = card;
  // A card is shown where it is used.
  edited.card.display_deg = std::clamp(card.display_deg, std::max(1.0, card.worksFrom_deg),
                                       std::max(1.0, card.worksTo_deg));
  return edited;
}

Result<Design> applyMend(const Design& design, const Mend& mend) {
  Design edited = design;
  for (const MendEdit& edit : mend.edits) {
    auto next = setValues(edited, edit.id, {{edit.key, edit.to}});
    if (!next) return next.error();
    edited = std::move(next).value();
  }
  for (const MendWork& made : mend.works) {
    auto next = setWork(edited, made.id, made.work);
    if (!next) return next.error();
    edited = std::move(next).value();
  }
  if (mend.dressing) edited.dressing = *mend.dressing;
  return edited;
}

} // namespace hinge
