// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/card_look.h"
#include "render/flat_painter.h"

namespace hinge {
namespace {

/// A frame in the plane as a map of the picture.
QTransform planar(const Iso3& frame) {
  const auto& r = frame.linear();
  return {r(0, 0), r(1, 0), r(0, 1), r(1, 1), frame.translation().x(), frame.translation().y()};
}

} // namespace

CardLook::CardLook(const Design& design, const Assembly& assembly,
                   const KeyedVector<FaceIndex, Face>& faces,
                   const std::vector<DressedFace>& dressed)
    : m_sides(2 * assembly.panels.size()) {
  for (PanelIndex panel : assembly.panels.indices())
    if (const Paper* paper = design.findPaper(assembly.pieces[assembly.panels[panel].piece].paper))
      addPaper(*paper, assembly, panel);
  for (const DressedFace& wears : dressed) {
    const Face& face = faces[wears.face];
    auto& side = m_sides[static_cast<std::size_t>(2 * face.panel.value + (face.back ? 1 : 0))];
    for (const CutLayer& layer : wears.layers) {
      const Paper* paper = design.findPaper(layer.paper);
      if (!paper) continue;
      const QTransform toPiece = planar(face.toPiece);
      for (const Region& part : layer.parts) {
        QTransform pattern;
        pattern.rotateRadians(layer.up_rad - 0.5 * kPi);
        side.push_back({*paper, false, toPath(part, toPiece), pattern * toPiece});
      }
    }
  }
}

void CardLook::addPaper(const Paper& paper, const Assembly& assembly, PanelIndex panel) {
  if (!paper.patterned() && paper.colours == Paper().colours && paper.surface != Surface::Foil)
    return;
  const QPainterPath outline = toPath(assembly.panels[panel].outline, {});
  for (const bool back : {false, true})
    m_sides[static_cast<std::size_t>(2 * panel.value + (back ? 1 : 0))].push_back(
        {paper, back, outline, {}, true});
}

std::shared_ptr<const CardLook> lookOf(const Snapshot& snapshot) {
  const auto assembly = snapshot.assembly();
  const auto dressed = snapshot.dressed();
  if (!assembly || !dressed) return nullptr;
  return std::make_shared<const CardLook>(snapshot.design(), **assembly, *snapshot.faces(),
                                          *dressed);
}

} // namespace hinge
