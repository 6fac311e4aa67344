// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/dress_moments.h"
#include <algorithm>
#include <map>

namespace hinge {
namespace {

int stepOf(const Assembly& assembly, const AssemblyOrder& order, PanelIndex tab, PanelIndex host) {
  for (std::size_t k = 0; k < order.steps.size(); ++k)
    for (const JointGroup& group : order.steps[k].joints)
      for (JointIndex j : group)
        if (const auto* glue = std::get_if<Glue>(&assembly.joints[j]);
            glue && glue->tab == tab && glue->host == host)
          return static_cast<int>(k);
  return -1;
}

/// From the slit in a layer for what stands on the line to the layer's edge; 0 when it is open.
double wayOut_mm(const CutLayer& layer, const Edge& stands) {
  const Vec2 middle = 0.5 * (stands.first + stands.second);
  double least = 0;
  for (const Region& part : layer.parts)
    for (const Polygon& hole : part.holes)
      if (contains(hole, middle)) {
        least = 1e300;
        for (const Vec2& corner : hole)
          least = std::min(least, distanceToOutline(Region(part.rim), corner));
      }
  return least;
}

} // namespace

std::vector<DressMoment> dressMoments(const Design& design, const Assembly& assembly,
                                      const KeyedVector<FaceIndex, Face>& faces,
                                      const std::vector<DressedFace>& dressed,
                                      const AssemblyOrder& order) {
  std::map<std::pair<int, PieceIndex>, DressMoment> moments;
  for (const DressedFace& wears : dressed) {
    if (std::ranges::all_of(wears.layers, [](const CutLayer& l) { return l.parts.empty(); }))
      continue;
    const Face& face = faces[wears.face];
    const AtGlue how = design.dressing.rules[wears.rule].atGlue;
    int after = -1, before = -1;
    double cutOpen = 0;
    for (const GluedOn& on : gluedOnto(assembly, face)) {
      const int step = stepOf(assembly, order, on.tab, face.panel);
      if (step < 0) continue;
      if (how == AtGlue::Under) before = before < 0 ? step : std::min(before, step);
      if (how != AtGlue::Over) continue;
      after = std::max(after, step);
      for (const CutLayer& layer : wears.layers)
        if (on.stands) cutOpen = std::max(cutOpen, wayOut_mm(layer, *on.stands));
    }
    const PieceIndex piece = assembly.panels[face.panel].piece;
    DressMoment& moment = moments[{after, piece}];
    moment.piece = piece, moment.after = after;
    moment.faces.push_back(wears.face);
    if (before >= 0) moment.before = moment.before < 0 ? before : std::min(moment.before, before);
    moment.cutOpen_mm = std::max(moment.cutOpen_mm, cutOpen);
  }
  std::vector<DressMoment> all;
  for (auto& [when, moment] : moments)
    all.push_back(std::move(moment));
  return all;
}

} // namespace hinge
