// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/registry.h"
#include "core/structures/piece.h"

namespace hinge {

std::span<const StructureKind* const> structureKinds() {
  static const StructureKind* const all[] = {
      &vfoldKind(),   &boxKind(),   &closedBoxKind(), &cubeKind(),  &cornerCubeKind(),
      &sideBoxKind(), &tiersKind(), &platformKind(),  &stepKind(),  &cutVFoldKind(),
      &figureKind(),  &armKind(),   &windowKind(),    &stripKind(), &pieceKind()};
  return all;
}

ParameterTable parametersOf(const StructureItem& item) {
  const StructureKind* kind = findStructureKind(item.kind);
  return item.work ? pieceParameters(*item.work) : kind->parameters;
}

std::vector<MendDirection> mendDirectionsOf(const StructureItem& item) {
  return item.work ? pieceMends(*item.work) : findStructureKind(item.kind)->mendDirections();
}

const StructureKind* findStructureKind(std::string_view key) {
  for (const StructureKind* kind : structureKinds())
    if (kind->key == key) return kind;
  return nullptr;
}

} // namespace hinge
