// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/bases/chain.h"
#include <fmt/format.h>

namespace hinge {
namespace {

/// A span between every two leaves that are not neighbours, on the sides that face each other when
/// the card is half open.
void offerSpans(AssemblyBuilder& builder, const std::vector<Leaf>& leaves,
                const std::vector<PanelIndex>& panels, const std::vector<double>& edges,
                double length_mm) {
  std::vector<Iso3> poses(leaves.size());
  for (const auto& [page, pose] : builder.assembly().basePoses(0.5 * kPi))
    for (std::size_t k = 0; k < panels.size(); ++k)
      if (panels[k] == page) poses[k] = pose;
  for (std::size_t i = 0; i < leaves.size(); ++i)
    for (std::size_t j = i + 2; j < leaves.size(); ++j) {
      Seat seat{leaves[i].key + "+" + leaves[j].key,
                Text("and", leaves[i].label, leaves[j].label),
                {},
                length_mm,
                0};
      seat.span = true;
      const double right = edges[i], left = edges[j] - leaves[j].width_mm;
      seat.sides = {SeatSide{panels[i], planarFrame({right, 0}, -Vec2::UnitX(), Vec2::UnitY())},
                    SeatSide{panels[j], planarFrame({left, 0}, Vec2::UnitX(), Vec2::UnitY())}};
      const auto middle = [&](std::size_t k) {
        return Vec3(poses[k] * Vec3(edges[k] - 0.5 * leaves[k].width_mm, 0.5 * length_mm, 0));
      };
      const Vec3 across = middle(j) - middle(i);
      seat.fromBehind = {poses[i].linear().col(2).dot(across) < 0,
                         poses[j].linear().col(2).dot(across) > 0};
      // Where the two pages show different sides a strip would have to pass through those between
      // them.
      if (seat.fromBehind[0] == seat.fromBehind[1]) builder.assembly().seats.push(seat);
    }
}

} // namespace

void offerFold(AssemblyBuilder& builder, const std::string& key, const Text& label,
               const SeatSide& left, const SeatSide& right, double length_mm,
               double shutOpening_rad) {
  builder.seat(key, label, left, right, length_mm, shutOpening_rad);
  builder.seat(key + "-back", Text("from-behind", label), right, left, length_mm,
               2 * kPi - shutOpening_rad);
  // A fold that is flat in the shut card carries nothing that must fold over with it.
  if (shutOpening_rad > 0 && shutOpening_rad < 2 * kPi)
    for (const std::string& seat : {key, key + "-back"})
      builder.crease(seat);
}

std::vector<PanelIndex> buildChain(AssemblyBuilder& builder, const std::vector<Leaf>& leaves,
                                   const std::vector<Crease>& creases, std::size_t ground,
                                   double length_mm) {
  const PieceIndex sheet = builder.piece("sheet", "card");
  double x = 0;
  for (std::size_t k = 0; k < ground; ++k)
    x -= leaves[k].width_mm;
  std::vector<PanelIndex> panels;
  std::vector<double> edges;
  for (const Leaf& leaf : leaves) {
    panels.push_back(builder.panel(
        sheet, leaf.key, leaf.label, PanelUse::Page,
        {{x, 0}, {x + leaf.width_mm, 0}, {x + leaf.width_mm, length_mm}, {x, length_mm}}));
    x += leaf.width_mm;
    edges.push_back(x);
  }
  Assembly& assembly = builder.assembly();
  assembly.root = panels[ground];
  assembly.symmetric = false;
  if (ground > 0) builder.twins(panels[ground - 1], panels[ground]);
  for (std::size_t k = 0; k + 1 < leaves.size(); ++k) {
    const Crease& c = creases[k];
    // The gutter is the fold at the left of the ground leaf, or the first one.
    const bool gutter = k + 1 == ground || (ground == 0 && k == 0);
    const std::string key = gutter ? "gutter" : fmt::format("fold-{}", k + 1);
    const Text label = gutter ? Text("gutter") : Text("fold", k + 1);
    const double sign = c.sense == FoldSense::Valley ? 1.0 : -1.0,
                 shut = c.flatWhenShut ? 0.0 : sign * kPi,
                 open = sign * (kPi - radians(c.open_deg));
    const Vec2 from(edges[k], 0), to(edges[k], length_mm);
    const FoldIndex fold =
        builder.fold(key, label, panels[k], panels[k + 1], from, to, c.sense, shut);
    assembly.drives.push_back({fold, shut, open, c.from_rad, c.to_rad});
    const SeatSide left{panels[k], planarFrame(from, -Vec2::UnitX(), Vec2::UnitY())},
        right{panels[k + 1], planarFrame(from, Vec2::UnitX(), Vec2::UnitY())};
    offerFold(builder, key, label, left, right, length_mm,
              c.flatWhenShut                 ? kPi
              : c.sense == FoldSense::Valley ? 0.0
                                             : 2 * kPi);
  }
  offerSpans(builder, leaves, panels, edges, length_mm);
  return panels;
}

void addPictureLeaf(AssemblyBuilder& builder, PanelIndex front, double width_mm, double length_mm) {
  const PieceIndex picture = builder.piece("picture", "picture-leaf");
  const PanelIndex leaf =
      builder.panel(picture, "picture", "picture-leaf", PanelUse::Wall,
                    {{-width_mm, 0}, {0, 0}, {0, length_mm}, {-width_mm, length_mm}});
  builder.glue(leaf, front, Iso3::Identity());
  builder.faceSeats(leaf, {-width_mm, length_mm},
                    {-width_mm, 0}); // as it stands: on the edge at the stop
}

} // namespace hinge
