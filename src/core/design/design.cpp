#include "core/design/design.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace hinge {

namespace {
constexpr std::string_view kPanelKey = "panel-";
}

std::optional<StructureId> structureIdFromText(std::string_view text) {
  if (text.size() < 2 || text.front() != 's') return std::nullopt;
  int value = 0;
  const auto [end, error] = std::from_chars(text.data() + 1, text.data() + text.size(), value);
  if (error != std::errc() || end != text.data() + text.size()) return std::nullopt;
  if (value < 1 || value > kLargestStructureNumber) return std::nullopt;
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
                               formatNumber(starting::kLeastCard_mm, 0),
                               formatNumber(starting::kLargestCard_mm, 0)),
                   fmt::format("card {}", what)};
    return {};
  };
  if (auto width = check(card.width_mm, "width"); !width) return width;
  if (auto height = check(card.height_mm, "height"); !height) return height;
  if (!(card.display_deg >= 1 && card.display_deg <= 180))
    return Error{"card.display",
                 fmt::format("{} degrees is outside 1 to 180", formatNumber(card.display_deg, 3)),
                 "card display"};
  if (!(card.openBy_deg >= 30 && card.openBy_deg <= 180))
    return Error{"card.open-by",
                 fmt::format("{} degrees is outside 30 to 180", formatNumber(card.openBy_deg, 3)),
                 "card open_by_deg"};
  return {};
}

Result<Added> addStructure(const Design& design, std::string_view kind, std::string_view seat,
                           const ParameterValues& values, const std::optional<PieceWork>& work) {
  const StructureKind* recipe = findStructureKind(kind);
  if (!recipe)
    return Error{"structure.unknown", fmt::format("there is no structure kind \"{}\"", kind), ""};
  if (recipe->freePiece != work.has_value())
    return Error{"work.missing",
                 fmt::format("a {} {} worked piece", recipe->label,
                             recipe->freePiece ? "needs a" : "takes no"),
                 std::string(kind)};
  if (design.nextId > kLargestStructureNumber)
    return Error{"structure.numbers",
                 "no number is left for another structure: numbers are not reused", ""};
  Added added{design, StructureId{design.nextId}};
  ++added.design.nextId;
  StructureItem item{added.id, std::string(kind), std::string(seat), "", values, work, ""};
  readWidths(item);
  if (work)
    if (auto valid = validate(*work, added.id.text()); !valid) return valid.error();
  if (auto valid = validate(parametersOf(item), item.values, kind); !valid) return valid.error();
  added.design.structures.push_back(std::move(item));
  return added;
}

void readWidths(StructureItem& item) {
  if (!item.work) return;
  std::erase_if(item.values, [](const auto& v) { return v.first.starts_with(kPanelKey); });
  int k = 0;
  for (double width : panelWidths_mm(*item.work))
    item.values[fmt::format("{}{}", kPanelKey, ++k)] = width;
}

Result<Design> setWork(const Design& design, StructureId id, const PieceWork& work) {
  if (auto valid = validate(work, id.text()); !valid) return valid.error();
  Design edited = design;
  const auto it = std::ranges::find(edited.structures, id, &StructureItem::id);
  if (it == edited.structures.end() || !it->work)
    return Error{"structure.missing", fmt::format("there is no free piece {}", id.text()), ""};
  it->work = work;
  readWidths(*it);
  if (auto valid = validate(parametersOf(*it), it->values, id.text()); !valid) return valid.error();
  return edited;
}

std::vector<StructureId> hostsOf(const StructureItem& item) {
  std::vector<StructureId> hosts;
  const auto add = [&](std::string_view key) {
    if (const auto owner = ownerOfKey(key);
        owner && *owner != item.id && std::ranges::find(hosts, *owner) == hosts.end())
      hosts.push_back(*owner);
  };
  add(item.seat);
  if (item.work)
    for (const WorkJoint& joint : item.work->joints)
      add(joint.on);
  return hosts;
}

Result<Design> setValues(const Design& design, StructureId id, const ParameterValues& changes) {
  Design edited = design;
  const auto it = std::ranges::find(edited.structures, id, &StructureItem::id);
  if (it == edited.structures.end())
    return Error{"structure.missing", fmt::format("there is no structure {}", id.text()), ""};
  for (const auto& [key, value] : changes) {
    if (!it->work || !key.starts_with(kPanelKey)) {
      it->values[key] = value;
      continue;
    }
    // The width of a panel: its right score moves and takes along what lies beyond it.
    const ParameterSpec* spec = findSpec(parametersOf(*it), key);
    if (!spec || !(value >= spec->least && value <= spec->most))
      return Error{"value.range",
                   fmt::format("the piece has no {} of {} mm", key, formatNumber(value, 3)),
                   id.text()};
    auto moved = withPanelWidth(
        *it->work,
        static_cast<std::size_t>(spec - findSpec(parametersOf(*it), std::string(kPanelKey) + "1")),
        value);
    if (!moved) return Error{moved.error().code, moved.error().message, id.text()};
    it->work = std::move(moved).value();
    readWidths(*it);
  }
  if (auto valid = validate(parametersOf(*it), it->values, id.text()); !valid) return valid.error();
  return edited;
}

std::vector<StructureId> standingOn(const Design& design, StructureId id) {
  std::vector<StructureId> found{id};
  // Structures are stored after what they stand on, so one pass is enough.
  for (const StructureItem& item : design.structures) {
    const auto hosts = hostsOf(item);
    if (std::ranges::any_of(
            hosts, [&](StructureId host) { return std::ranges::find(found, host) != found.end(); }))
      found.push_back(item.id);
  }
  return found;
}

Result<Design> removeStructure(const Design& design, StructureId id) {
  if (!design.find(id))
    return Error{"structure.missing", fmt::format("there is no structure {}", id.text()), ""};
  const auto gone = standingOn(design, id);
  Design edited = design;
  std::erase_if(edited.structures, [&](const StructureItem& item) {
    return std::ranges::find(gone, item.id) != gone.end();
  });
  return edited;
}

Result<Design> setCard(const Design& design, const CardBase& card) {
  if (auto valid = validateCard(card); !valid) return valid.error();
  Design edited = design;
  edited.card = card;
  return edited;
}

} // namespace hinge
