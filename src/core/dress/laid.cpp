// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/dress/laid.h"
#include "core/pieces/splicing.h"
#include "core/structures/toppers.h"

namespace hinge {
namespace {

/// Lies on whatever layers there are.
constexpr std::size_t kOnAll = 1000;

} // namespace

std::vector<LaidOn> everythingLaid(const Design& design, const Assembly& assembly,
                                   const KeyedVector<FaceIndex, Face>& faces,
                                   const std::vector<DressedFace>& dressed) {
  std::vector<LaidOn> laid;
  for (const DressedFace& wears : dressed) {
    const Face& face = faces[wears.face];
    std::size_t number = 0;
    for (const CutLayer& layer : wears.layers) {
      const Paper* paper = design.findPaper(layer.paper);
      for (const Region& part : layer.parts)
        if (paper)
          laid.push_back({face.panel, mapped(part, face.toPiece), paper->thickness_mm, layer.paper,
                          face.back, number});
      ++number;
    }
  }
  for (const Topper& topper : design.dressing.toppers) {
    const FaceIndex face = faces.find(topper.face);
    if (topper.fix != TopperFix::Pads || !face.valid()) continue;
    const Seat& seat = assembly.seats[faces[face].seat];
    for (const Region& shape : takenBy(topper, design.settings))
      for (const Region& zone :
           fixingZone(assembly, seat, topper, shape, design.settings.foldClearance_mm))
        laid.push_back({faces[face].panel, mapped(zone, onPiece(topper, seat)), topper.raised_mm,
                        "", faces[face].back, kOnAll});
  }
  for (const Splice& splice : design.splices) {
    const auto lies = laidSplice(assembly, splice);
    if (!lies) continue; // a check tells
    const std::string& key = assembly.pieces[assembly.panels[lies->panel].piece].paper;
    laid.push_back({lies->panel, lies->overlap, design.paperNamed(key).thickness_mm, key,
                    !splice.onFace, kOnAll});
  }
  return laid;
}

} // namespace hinge
