// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/sheets_dxf.h"
#include "render/dxf_writing.h"
#include "render/one_sheet.h"

namespace hinge {
namespace {

/// In the order of LineKind, then glue and marks.
const std::vector<DxfLayer>& layers() {
  static const std::vector<DxfLayer> all{
      {"cut", 7}, {"mountain", 6}, {"valley", 30}, {"glue", 94}, {"marks", 8}};
  return all;
}

std::size_t layerOf(LineKind kind) {
  return kind == LineKind::Cut ? 0 : kind == LineKind::Mountain ? 1 : 2;
}

} // namespace

Result<std::string> piecesToDxf(const Assembly& assembly, const Design& design) {
  const OneSheet sheet(assembly, design);
  return writtenAsDxf(layers(), [&](const DxfPath& path) {
    for (const SheetPlace& place : sheet.layout.places) {
      const FlatPiece& piece = sheet.pieceOf(place);
      const auto placed = [&](std::vector<Vec2> points) {
        for (Vec2& p : points)
          p = place.onSheet(p);
        return points;
      };
      for (const FlatLine& line : piece.lines)
        path(layerOf(line.kind), placed(line.corners), line.closed);
      const std::pair<std::size_t, const std::vector<FlatArea>*> areas[] = {{3, &piece.glue},
                                                                            {4, &piece.marks}};
      for (const auto& [layer, all] : areas)
        for (const FlatArea& area : *all)
          for (const Polygon* ring : ringsOf(area.outline))
            path(layer, placed(*ring), true);
    }
  });
}

} // namespace hinge
