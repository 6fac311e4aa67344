// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/vectors.h"
#include <optional>
#include <vector>

namespace hinge {

// Closed forms of the joints that structures share, as first guesses for the motion engine. All
// poses map a flat piece into the frame of the seat (origin at the start of the fold, y along it, z
// towards the structure); nothing where the panels cannot meet at this opening of the seat.

/// Two walls c, d that stand at the distances a, b from the fold and meet in a ridge on the side of
/// the structure: the planar four-bar of a parallel fold. Flat frame: x along the strip with the
/// foot of wall a at 0, y along the seat's fold, face (+z) outside. Poses of wall a and wall b.
std::optional<std::vector<Iso3>> parallelFoldPoses(double opening_rad, double position_mm, double a,
                                                   double b, double c, double d);

/// Two panels that meet in a crease through a point of the fold, base lines at al, be from the fold
/// and panel angles g1, g2: the spherical four-bar of a V-fold. Flat frame: apex in the origin,
/// crease along +y, panel a to the left, face (+z) outside. Poses of panel a and panel b.
std::optional<std::vector<Iso3>> vFoldPoses(double opening_rad, double position_mm, double al,
                                            double be, double g1, double g2);

} // namespace hinge
