// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"

namespace hinge {

/// Something glued to the panel that carries a slide, on the side on which it slides: what keeps it
/// in its way, lies over it or is in its way. Measured in the frame of the slide: x across the way,
/// y along it.
struct Pocket {
  JointIndex slide;
  JointIndex glue;     ///< how it is glued to the carrier
  PanelIndex panel;    ///< that is glued there
  bool covers = false; ///< lies over what slides: a pocket front or a strap
  /// Paper beyond the slider on its two sides (covers), or twice how far the panel is from its way
  /// on the nearer side; negative where it is in the way.
  double low_mm = 0, high_mm = 0;
  double from_mm = 0, to_mm = 0; ///< where it is on the way
  double inside_mm = 0;          ///< thickness of all paper that slides there
  std::vector<Polygon> strips;   ///< of a cover: what is left for glue, in the panel's flat frame
};

/// How much room a slider needs beside it: a hand's inaccuracy and the way round the edge of all
/// that slides, `inside_mm` thick.
double slidePlay_mm(double inside_mm);

/// What every slide meets on its panel between its stops. Cost: slides times glued panels.
std::vector<Pocket> pocketsOf(const Assembly& assembly);

/// Notes at every slide how the covers over it guide it.
void measureSlides(Assembly& assembly);

} // namespace hinge
