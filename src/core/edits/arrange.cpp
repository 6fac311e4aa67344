// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/arrange.h"
#include "core/edits/dressing.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace hinge {
namespace {

/// The seat's image: on the other side of what it belongs to, or itself.
std::string imageOf(const Assembly& assembly, const std::string& seat) {
  std::string other = assembly.otherSideOf(seat);
  return other.empty() ? seat : other;
}

/// Copies the structure and its guests; `seat` is where the copy of the first one stands. With
/// `image` they are mirrored.
Result<Added> copyTree(const Design& design, StructureId id, const std::string& seat, bool image) {
  const auto assembly = assembleDesign(design);
  if (!assembly) return assembly.error();
  Design edited = design;
  std::map<StructureId, StructureId> copies;
  for (const StructureItem& item : design.structures) {
    const auto host = ownerOfKey(item.seat);
    if (item.id != id && !(host && copies.contains(*host))) continue;
    std::string on = seat;
    if (item.id != id) {
      const std::string there = image ? imageOf(*assembly, item.seat) : item.seat;
      on = copies.at(*host).text() + there.substr(there.find('/'));
    }
    StructureItem copy = item;
    if (image) waysOf(item).mirror(copy, *assembly->findSeat(item.seat), *assembly, on);
    auto added = addStructure(edited, item.kind, on, copy.values, copy.work);
    if (!added) return added.error();
    edited = std::move(added->design);
    edited.structures.back().label = item.label;
    edited.structures.back().paper = item.paper;
    copies.emplace(item.id, added->id);
  }
  if (copies.empty()) return Error{{"structure.missing", id.text()}, ""};
  copyDressing(
      edited, *assembly, copies,
      [&](const std::string& face) { return image ? imageOf(*assembly, face) : face; }, image);
  return Added{std::move(edited), copies.at(id)};
}

} // namespace

Result<Design> mirrored(const Design& design, StructureId id) {
  const auto assembly = assembleDesign(design);
  if (!assembly) return assembly.error();
  const std::vector<StructureId> all = standingOn(design, id);
  Design edited = design;
  for (StructureItem& item : edited.structures) {
    if (std::ranges::find(all, item.id) == all.end()) continue;
    const std::string onto = item.id == id ? item.seat : imageOf(*assembly, item.seat);
    waysOf(item).mirror(item, *assembly->findSeat(item.seat), *assembly, onto);
  }
  // What it wears goes over to the other side with it.
  std::map<StructureId, StructureId> themselves;
  for (StructureId one : all)
    themselves.emplace(one, one);
  edited.dressing = undressed(std::move(edited.dressing), all);
  Design worn = edited;
  worn.dressing = design.dressing;
  copyDressing(
      worn, *assembly, themselves,
      [&](const std::string& face) { return imageOf(*assembly, face); }, true);
  const Dressing& both = design.dressing;
  const auto kept = [](auto& list, const auto& made, std::size_t from) {
    for (std::size_t k = from; k < made.size(); ++k)
      list.push_back(made[k]);
  };
  kept(edited.dressing.rules, worn.dressing.rules, both.rules.size());
  kept(edited.dressing.toppers, worn.dressing.toppers, both.toppers.size());
  return edited;
}

Result<Design> repeatedAlong(const Design& design, StructureId id, int times, double step_mm) {
  const StructureItem* item = design.find(id);
  if (!item || times < 1) return Error{{"structure.missing/repeat", id.text()}, ""};
  Design edited = design;
  const std::string at(findSense(parametersOf(*item), Sense::Place)->key);
  const double start = item->values.find(at)->second;
  for (int k = 1; k <= times; ++k) {
    auto copy = copyTree(edited, id, item->seat, false);
    if (!copy) return copy.error();
    auto moved = setValues(copy->design, copy->id, {{at, start + k * step_mm}});
    if (!moved) return moved.error();
    edited = std::move(moved).value();
  }
  return edited;
}

Result<Added> copiedToOtherSide(const Design& design, StructureId id) {
  const StructureItem* item = design.find(id);
  if (!item) return Error{{"structure.missing", id.text()}, ""};
  const auto assembly = assembleDesign(design);
  if (!assembly) return assembly.error();
  const std::string other = assembly->otherSideOf(item->seat);
  if (other.empty()) return Error{{"seat.no-other-side", item->seat, id.text()}, id.text()};
  return copyTree(design, id, other, true);
}

} // namespace hinge
