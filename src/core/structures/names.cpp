#include "core/structures/names.h"
#include "core/structures/registry.h"
#include "core/units/length.h"
#include <algorithm>
#include <fmt/format.h>

namespace hinge {

std::string nameOf(const Design& design, StructureId id) {
  const StructureItem* item = design.find(id);
  if (!item) return id.text();
  if (!item->label.empty()) return item->label;
  const StructureKind* kind = findStructureKind(item->kind);
  return fmt::format("{} {}", kind ? kind->label : "structure", id.text());
}

std::string panelName(const Design& design, const std::string& key) {
  const auto slash = key.find('/');
  std::string role = slash == std::string::npos ? key : key.substr(slash + 1);
  std::ranges::replace(role, '-', ' ');
  const auto owner = ownerOfKey(key);
  return owner ? fmt::format("{} of {}", role, nameOf(design, *owner)) : role;
}

std::string openingText(const CardBase& card, double opening_rad) {
  const double way = degrees(opening_rad);
  if (card.openBy_deg >= 180) return formatAngle(way);
  if (way <= card.openBy_deg) return formatAngle(way * 180 / card.openBy_deg);
  return fmt::format("180° and pulled {} %",
                     formatNumber(100 * (way - card.openBy_deg) / (180 - card.openBy_deg), 0));
}

} // namespace hinge
