// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structures/registry.h"

namespace hinge {

std::span<const StructureKind* const> structureKinds() {
  static const StructureKind* const all[] = {
      &vfoldKind(),   &boxKind(),        &closedBoxKind(),      &cubeKind(),   &cornerCubeKind(),
      &sideBoxKind(), &tiersKind(),      &platformKind(),       &stepKind(),   &cutVFoldKind(),
      &figureKind(),  &armKind(),        &standingFigureKind(), &windowKind(), &stripKind(),
      &pieceKind(),   &cardOnFaceKind(), &cardOnFoldKind()};
  return all;
}

ParameterTable parametersOf(const StructureItem& item) {
  return waysOf(item).rows(item);
}

std::vector<MendDirection> mendDirectionsOf(const StructureItem& item) {
  return waysOf(item).mends(item);
}

const StructureKind* findStructureKind(std::string_view key) {
  for (const StructureKind* kind : structureKinds())
    if (kind->key == key) return kind;
  return nullptr;
}

} // namespace hinge
