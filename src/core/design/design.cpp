#include "core/design/design.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace hinge {

std::optional<StructureId> structureIdFromText(std::string_view text) {
  if (text.size() < 2 || text.front() != 's') return std::nullopt;
  int value = 0;
  const auto [end, error] = std::from_chars(text.data() + 1, text.data() + text.size(), value);
  if (error != std::errc() || end != text.data() + text.size() || value < 1) return std::nullopt;
  return StructureId{value};
}

std::optional<StructureId> ownerOfKey(std::string_view key) {
  const auto slash = key.find('/');
  return slash == std::string_view::npos ? std::nullopt : structureIdFromText(key.substr(0, slash));
}

const StructureItem* Design::find(StructureId id) const {
  const auto it = std::ranges::find(structures, id, &StructureItem::id);
  return it == structures.end() ? nullptr : &*it;
}

Result<void> validateCard(const CardBase& card) {
  const auto check = [](double size, std::string_view what) -> Result<void> {
    if (!std::isfinite(size) || size < starting::kLeastCard_mm || size > starting::kLargestCard_mm)
      return Error{"card.size",
                   fmt::format("{} mm is outside {} to {} mm", formatNumber(size, 4),
                               formatNumber(starting::kLeastCard_mm, 0), formatNumber(starting::kLargestCard_mm, 0)),
                   fmt::format("card {}", what)};
    return {};
  };
  if (auto width = check(card.width_mm, "width"); !width) return width;
  if (auto height = check(card.height_mm, "height"); !height) return height;
  if (!(card.display_deg >= 1 && card.display_deg <= 180))
    return Error{"card.display", fmt::format("{} degrees is outside 1 to 180", formatNumber(card.display_deg, 3)), "card display"};
  return {};
}

Result<Added> addStructure(const Design& design, std::string_view kind, std::string_view seat,
                           const ParameterValues& values) {
  const StructureKind* recipe = findStructureKind(kind);
  if (!recipe) return Error{"structure.unknown", fmt::format("there is no structure kind \"{}\"", kind), ""};
  if (auto valid = validate(recipe->parameters, values, kind); !valid) return valid.error();
  Added added{design, StructureId{design.nextId}};
  ++added.design.nextId;
  added.design.structures.push_back({added.id, std::string(kind), std::string(seat), "", values, ""});
  return added;
}

Result<Design> setValues(const Design& design, StructureId id, const ParameterValues& changes) {
  Design edited = design;
  const auto it = std::ranges::find(edited.structures, id, &StructureItem::id);
  if (it == edited.structures.end())
    return Error{"structure.missing", fmt::format("there is no structure {}", id.text()), ""};
  for (const auto& [key, value] : changes) it->values[key] = value;
  const StructureKind* recipe = findStructureKind(it->kind);
  if (auto valid = validate(recipe->parameters, it->values, id.text()); !valid) return valid.error();
  return edited;
}

std::vector<StructureId> standingOn(const Design& design, StructureId id) {
  std::vector<StructureId> found{id};
  // Structures are stored after what they stand on, so one pass is enough.
  for (const StructureItem& item : design.structures) {
    const auto owner = ownerOfKey(item.seat);
    if (owner && std::ranges::find(found, *owner) != found.end()) found.push_back(item.id);
  }
  return found;
}

Result<Design> removeStructure(const Design& design, StructureId id) {
  if (!design.find(id)) return Error{"structure.missing", fmt::format("there is no structure {}", id.text()), ""};
  const auto gone = standingOn(design, id);
  Design edited = design;
  std::erase_if(edited.structures,
                [&](const StructureItem& item) { return std::ranges::find(gone, item.id) != gone.end(); });
  return edited;
}

Result<Design> setCard(const Design& design, const CardBase& card) {
  if (auto valid = validateCard(card); !valid) return valid.error();
  Design edited = design;
  edited.card = card;
  return edited;
}

} // namespace hinge
