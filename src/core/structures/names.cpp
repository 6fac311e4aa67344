#include "core/structures/names.h"
#include "core/structures/registry.h"
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

} // namespace hinge
