// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/pieces/pocket.h"
#include "core/motion/mechanism.h"
#include "core/paper/starting_values.h"
#include "core/pieces/wrap.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

namespace hinge {
namespace {

/// Extent of the parts of a region between two heights, from left to right; empty where it has
/// none there.
Box2 between(const Region& region, double low, double high) {
  Box2 box;
  for (const Polygon& part : convexParts(region))
    for (const Vec2& p :
         clipToHalfPlane(clipToHalfPlane(part, {0, low}, {0, 1}), {0, high}, {0, -1}))
      box.add(p);
  return box;
}

} // namespace

double slidePlay_mm(double inside_mm) {
  return starting::kSlidePlay_mm + inside_mm;
}

namespace {

/// A sheet of what slides.
struct SlidingLayer {
  Region region;
  double thickness_mm = 0;
};

/// What slides along one line, seen in the frame of the slide (y along its way).
struct Slider {
  JointIndex index;
  const Slide& slide;
  std::vector<SlidingLayer> layers; ///< all paper that goes with it
  Box2 box;
};

Slider sliderOf(const Assembly& assembly, const Mechanism& bodies, JointIndex index,
                const Slide& slide) {
  Slider slider{index, slide, {}, {}};
  const Iso3 rider = inverseOf(slide.onSecond);
  // All that is glued flat to what slides goes with it.
  for (PanelIndex p : bodies.bodies[bodies.bodyOf[slide.second]].panels) {
    const Iso3 toRider = inverseOf(bodies.inBody[slide.second]) * bodies.inBody[p];
    const bool level = std::abs(std::abs(toRider.linear()(2, 2)) - 1) < 1e-6;
    if (!level || std::abs(toRider.translation().z()) > 1e-6) continue;
    slider.layers.push_back(
        {mapped(assembly.panels[p].outline, rider * toRider), assembly.thickness_mm(p)});
    slider.box.add(boundsOf(slider.layers.back().region));
    // A strap closed on itself goes round what slides: its other panels lie over this one.
    const PieceIndex piece = assembly.panels[p].piece;
    if (isGluedToItself(assembly, piece))
      slider.layers.insert(slider.layers.end(), assembly.pieces[piece].panels.size() - 1,
                           slider.layers.back());
  }
  return slider;
}

/// The strips of a glued panel that lie beside the way of what slides under it, in its flat frame.
std::vector<Polygon> glueStrips(const Region& glued, const Box2& passing, double play_mm,
                                const Iso3& toPanel) {
  std::vector<Polygon> strips;
  for (const Polygon& part : convexParts(glued))
    for (const auto& [at, normal] :
         {std::pair{passing.low.x() - play_mm, -1.0}, std::pair{passing.high.x() + play_mm, 1.0}})
      if (const Polygon strip = clipToHalfPlane(part, {at, 0}, {normal, 0});
          strip.size() > 2 && std::abs(signedArea_mm2(strip)) > 1e-6)
        strips.push_back(mapped(Region(strip), toPanel).rim);
  return strips;
}

/// What a panel glued to the carrier does to the slider, if that ever comes there.
std::optional<Pocket> pocketOf(const Assembly& assembly, const Slider& slider, JointIndex g,
                               const Glue& glue) {
  const Slide& slide = slider.slide;
  const bool asHost = glue.host == slide.first;
  const PanelIndex panel = asHost ? glue.tab : glue.host;
  const Iso3 toSlide =
      inverseOf(slide.onFirst) * (asHost ? glue.tabToHost : inverseOf(glue.tabToHost));
  const Region glued = mapped(assembly.panels[panel].outline, toSlide);
  const Box2 there = boundsOf(glued), &own = slider.box;
  Pocket pocket{slider.index, g, panel};
  pocket.from_mm = there.low.y(), pocket.to_mm = there.high.y();
  // What of the slider ever comes to these heights, and how much of the panel is there.
  Box2 passing;
  for (const auto& [layer, thickness_mm] : slider.layers)
    if (const Box2 part =
            between(layer, there.low.y() - slide.most_mm, there.high.y() - slide.least_mm);
        !part.empty())
      passing.add(part), pocket.inside_mm += thickness_mm;
  const Box2 met = between(glued, own.low.y() + slide.least_mm, own.high.y() + slide.most_mm);
  if (passing.empty() || met.empty()) return std::nullopt;
  pocket.low_mm = passing.low.x() - met.low.x();
  pocket.high_mm = met.high.x() - passing.high.x();
  // A pocket front too narrow for its slider is still one; a tab beside the way that reaches a
  // little into it is none.
  const double over =
      std::min(passing.high.x(), met.high.x()) - std::max(passing.low.x(), met.low.x());
  pocket.covers = over > 0.5 * std::min(passing.size().x(), met.size().x());
  if (pocket.covers) {
    const double play = slidePlay_mm(pocket.inside_mm);
    pocket.strips = glueStrips(glued, passing, play, inverseOf(toSlide));
  } else {
    // Beside the way: how far from it, on the side on which it lies.
    pocket.low_mm = std::max(met.low.x() - passing.high.x(), passing.low.x() - met.high.x());
    pocket.high_mm = pocket.low_mm;
  }
  return pocket;
}

} // namespace

namespace {

/// What glue holds together; a slider that rests where a hand has put it is none of it.
Mechanism withoutHands(const Assembly& assembly) {
  const auto rests = [](const Joint& joint) {
    const Guide* guide = guideOf(joint);
    return guide && guide->rests;
  };
  if (std::ranges::none_of(assembly.joints, rests)) return Mechanism::from(assembly);
  Assembly moving = assembly;
  for (Joint& joint : moving.joints)
    if (Slide* slide = std::get_if<Slide>(&joint)) slide->rests = false;
  return Mechanism::from(moving);
}

} // namespace

std::vector<Pocket> pocketsOf(const Assembly& assembly) {
  std::vector<Pocket> all;
  const Mechanism bodies = withoutHands(assembly);
  for (const auto& [index, slide] : assembly.every<Slide>()) {
    const Slider slider = sliderOf(assembly, bodies, index, slide);
    int beneath = 0;
    for (const auto& [g, glue] : assembly.every<Glue>()) {
      const bool asHost = glue.host == slide.first;
      if (!asHost && glue.tab != slide.first) continue;
      if ((asHost ? glue.onHostFace() : glue.byFace) != slide.onFace()) continue;
      const PanelIndex panel = asHost ? glue.tab : glue.host;
      if (bodies.bodyOf[panel] == bodies.bodyOf[slide.second]) continue;
      auto pocket = pocketOf(assembly, slider, g, glue);
      // Its maker has laid it over the first of those: they hold nothing.
      if (pocket && pocket->covers && beneath++ < slide.over) continue;
      if (pocket) all.push_back(std::move(*pocket));
    }
  }
  return all;
}

void measureSlides(Assembly& assembly) {
  std::map<int, Box2> over; // along the way
  for (const Pocket& pocket : pocketsOf(assembly)) {
    const double play = slidePlay_mm(pocket.inside_mm);
    if (!pocket.covers || std::min(pocket.low_mm, pocket.high_mm) < play - kTouch_mm) continue;
    Box2& box = over[pocket.slide.value];
    box.add({play, pocket.from_mm}), box.add({play, pocket.to_mm});
  }
  for (const auto& [index, box] : over) {
    Slide& slide = std::get<Slide>(assembly.joints[JointIndex(index)]);
    slide.room_mm = box.low.x(), slide.guided_mm = box.size().y();
    slide.guidedAt_mm = box.centre().y();
  }
}

} // namespace hinge
