// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/arrange.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace hinge {
namespace {

/// Values of the mirror image of a structure on `seat`.
ParameterValues mirrorValues(const StructureItem& item, const Seat& seat) {
  ParameterValues values = swapTwins(parametersOf(item), item.values);
  if (const auto side = values.find("side"); side != values.end()) side->second = 1 - side->second;
  if (seat.kind() != SeatKind::Face) return values;
  // On a face the image is seen with left and right exchanged.
  if (const auto at = values.find("position"); at != values.end())
    at->second = seat.length_mm - at->second;
  if (const auto turn = values.find("turn"); turn != values.end() && turn->second != 0)
    turn->second = -turn->second;
  if (const auto handed = values.find("handed"); handed != values.end())
    handed->second = 1 - handed->second;
  return values;
}

/// The piece's mirror image joined to the other sides of what it is joined to; where there is none,
/// mirrored on the same face.
PieceWork mirrorWork(const PieceWork& work, const Assembly& assembly) {
  PieceWork image = mirrored(work);
  for (PieceJoint& joint : image.joints) {
    const Seat* face = assembly.findSeat(joint.on);
    if (face) joint.to.x() = face->length_mm - joint.to.x();
    if (const std::string other = otherSideKey(joint.on); assembly.findSeat(other))
      joint.on = other;
  }
  return image;
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
      on = copies.at(*host).text() + item.seat.substr(item.seat.find('/'));
      if (image) on = otherSideKey(on);
    }
    const Seat* from = assembly->findSeat(item.seat);
    auto added = addStructure(
        edited, item.kind, on, image ? mirrorValues(item, *from) : item.values,
        item.work && image ? std::optional(mirrorWork(*item.work, *assembly)) : item.work);
    if (!added) return added.error();
    edited = std::move(added->design);
    edited.structures.back().label = item.label;
    copies.emplace(item.id, added->id);
  }
  if (copies.empty())
    return Error{"structure.missing", fmt::format("there is no structure \"{}\"", id.text()), ""};
  return Added{std::move(edited), copies.at(id)};
}

} // namespace

std::string otherSideKey(std::string_view seat) {
  std::string key(seat);
  const bool back = key.ends_with("-back");
  if (back) key.resize(key.size() - 5);
  if (key.ends_with("-a"))
    key.back() = 'b';
  else if (key.ends_with("-b"))
    key.back() = 'a';
  return back ? key + "-back" : key;
}

Result<Design> mirrored(const Design& design, StructureId id) {
  const auto assembly = assembleDesign(design);
  if (!assembly) return assembly.error();
  const std::vector<StructureId> all = standingOn(design, id);
  Design edited = design;
  for (StructureItem& item : edited.structures) {
    if (std::ranges::find(all, item.id) == all.end()) continue;
    item.values = mirrorValues(item, *assembly->findSeat(item.seat));
    if (item.work) item.work = mirrorWork(*item.work, *assembly), readWidths(item);
    if (item.id != id) item.seat = otherSideKey(item.seat);
  }
  return edited;
}

Result<Design> repeatedAlong(const Design& design, StructureId id, int times, double step_mm) {
  const StructureItem* item = design.find(id);
  if (!item || times < 1)
    return Error{"structure.missing",
                 fmt::format("there is nothing to repeat in \"{}\"", id.text()), ""};
  Design edited = design;
  const double start = item->values.find("position")->second;
  for (int k = 1; k <= times; ++k) {
    auto copy = copyTree(edited, id, item->seat, false);
    if (!copy) return copy.error();
    auto moved = setValues(copy->design, copy->id, {{"position", start + k * step_mm}});
    if (!moved) return moved.error();
    edited = std::move(moved).value();
  }
  return edited;
}

Result<Added> copiedToOtherSide(const Design& design, StructureId id) {
  const StructureItem* item = design.find(id);
  if (!item)
    return Error{"structure.missing", fmt::format("there is no structure \"{}\"", id.text()), ""};
  const std::string other = otherSideKey(item->seat);
  if (other == item->seat)
    return Error{"seat.no-other-side",
                 fmt::format("{} has no other side to copy {} to", item->seat, id.text()),
                 id.text()};
  return copyTree(design, id, other, true);
}

} // namespace hinge
