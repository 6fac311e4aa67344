// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/wrap.h"
#include "core/motion/mechanism.h"
#include "core/paper/starting_values.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kFlat_mm = 1e-6;

/// A panel's outline in the frame of another of its body; nothing when they do not lie in one
/// plane.
std::optional<Region> layerOn(const Assembly& assembly, PanelIndex panel, const Iso3& toThere) {
  if (std::abs(std::abs(toThere.linear()(2, 2)) - 1) > kFlat_mm ||
      std::abs(toThere.translation().z()) > kFlat_mm)
    return std::nullopt;
  return mapped(assembly.panels[panel].outline, toThere);
}

/// The part of a region in a frame (x along the strap, y across it) that the strap covers.
Box2 inBand(const Region& region, const Iso3& toStrap, double low, double high) {
  Box2 box;
  for (const Polygon& part : convexParts(mapped(region, toStrap)))
    for (const Vec2& p :
         clipToHalfPlane(clipToHalfPlane(part, {0, low}, {0, 1}), {0, high}, {0, -1}))
      box.add(p);
  return box;
}

} // namespace

Inside insideOf(const Assembly& assembly, const Mechanism& bodies, PanelIndex carrier,
                std::optional<PieceIndex> strap, const Iso3& toStrap, double low, double high) {
  Inside inside;
  const auto count = [&](PanelIndex p, const Iso3& toCarrier) {
    if (strap && assembly.panels[p].piece == *strap) return;
    const auto layer = layerOn(assembly, p, toCarrier);
    const Box2 part = layer ? inBand(*layer, toStrap, low, high) : Box2();
    if (part.empty() || part.size().x() < 0.5) return;
    inside.extent.add(part), ++inside.layers;
    inside.thick_mm += assembly.thickness_mm(p);
  };
  const BodyIndex body = bodies.bodyOf[carrier];
  const Iso3 home = inverseOf(bodies.inBody[carrier]);
  for (PanelIndex p : bodies.bodies[body].panels)
    count(p, home * bodies.inBody[p]);
  for (const auto& [j, slide] : assembly.every<Slide>())
    if (bodies.bodyOf[slide.first] == body && bodies.bodyOf[slide.second] != body) {
      const Iso3 rider = home * bodies.inBody[slide.first] * slidInFirst(slide, slide.middle_mm());
      for (PanelIndex p : bodies.bodies[bodies.bodyOf[slide.second]].panels)
        count(p, rider * inverseOf(bodies.inBody[slide.second]) * bodies.inBody[p]);
    }
  return inside;
}

namespace {

/// From the strap's piece into that of its carrier.
std::optional<Iso3> strapOnCarrier(const Assembly& assembly, const Strap& strap) {
  for (const Joint& joint : assembly.joints) {
    if (panelsOf(joint) != std::array{strap.carrier, strap.panel}) continue;
    if (const Glue* glue = std::get_if<Glue>(&joint)) return glue->tabToHost;
    if (const Slide* slide = std::get_if<Slide>(&joint)) return slidInFirst(*slide, 0);
  }
  return std::nullopt;
}

/// A strap and what it goes round; nothing when nothing lies there.
std::optional<Wrap> wrapOf(const Assembly& assembly, const Mechanism& bodies, const Strap& strap,
                           const Iso3& toCarrier) {
  const PieceIndex piece = assembly.panels[strap.panel].piece;
  const Fold &a = assembly.folds[strap.folds[0]], &b = assembly.folds[strap.folds[1]];
  const Vec2 u = (a.to - a.from).normalized();
  Vec2 across(u.y(), -u.x());
  if (across.dot(b.from - a.from) < 0) across = -across;
  const double inside = across.dot(b.from - a.from);
  // x runs from the first fold to the second, y along them.
  const Vec2 along(-across.y(), across.x());
  const Iso3 frame = planarFrame(a.from, across, along);
  const double one = 0, two = along.dot(a.to - a.from);
  const Inside found =
      insideOf(assembly, bodies, strap.carrier, piece, inverseOf(frame) * inverseOf(toCarrier),
               std::min(one, two), std::max(one, two));
  if (found.layers == 0) return std::nullopt;
  Wrap wrap{piece, strap.carrier, strap.panel, found.layers, found.thick_mm};
  wrap.width_mm = found.extent.size().x(), wrap.inside_mm = inside;
  // Folds that do not lie evenly on both sides leave less than they seem to.
  const double off = std::abs(0.5 * inside - found.extent.centre().x());
  wrap.inside_mm -= 2 * std::max(0.0, off - kFlat_mm);
  return wrap;
}

} // namespace

bool isGluedToItself(const Assembly& assembly, PieceIndex piece) {
  for (const auto& [j, glue] : assembly.every<Glue>())
    if (assembly.panels[glue.tab].piece == piece && assembly.panels[glue.host].piece == piece)
      return true;
  return false;
}

double wrapWidth_mm(double width_mm, double inside_mm, double own_mm) {
  return width_mm + 2 * starting::kSlidePlay_mm + 0.5 * kPi * (inside_mm + own_mm);
}

std::vector<Wrap> wrapsOf(const Assembly& assembly) {
  std::vector<Wrap> all;
  const Mechanism bodies = Mechanism::from(assembly);
  for (PieceIndex piece : assembly.pieces.indices())
    for (const Feature& feature : assembly.pieces[piece].features) {
      const Strap* strap = std::get_if<Strap>(&feature);
      const auto toCarrier = strap ? strapOnCarrier(assembly, *strap) : std::nullopt;
      if (!toCarrier) continue;
      if (auto wrap = wrapOf(assembly, bodies, *strap, *toCarrier)) {
        wrap->needed_mm =
            wrapWidth_mm(wrap->width_mm, wrap->thick_mm, assembly.pieces[piece].thickness_mm);
        all.push_back(*wrap);
      }
    }
  return all;
}

} // namespace hinge
