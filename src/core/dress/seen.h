// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/dress/face.h"
#include "core/motion/motion.h"
#include "core/states/in_plane.h"
#include <span>
#include <stop_token>

namespace hinge {

/// How much of a face an eye outside of the card meets, as shares of its area: on display, seen
/// from all round above the table; and at some opening up to that (it is held in the hand then, and
/// seen from all sides), or where hands take what they move.
struct FaceSeen {
  double display = 0, opening = 0;
  SeenClass seenAs() const {
    return display > kSeenShare   ? SeenClass::Display
           : opening > kSeenShare ? SeenClass::Opening
                                  : SeenClass::Hidden;
  }
  /// Less is a sliver beside an edge, and what the method is off by.
  static constexpr double kSeenShare = 0.02;
};

/// For every face, from pictures of the card that hold in each cell which panel is in front, from
/// 42 directions that are spread evenly over the sphere, at openings 15 degrees apart. Shares are
/// counted over some 500 points of the face, which alone is worth one or two hundredths. What can
/// be seen through a gap only from between two of the directions counts as hidden. Panels without a
/// place at an opening neither see nor hide. `order` says what lies on what in one plane. Empty
/// when it was stopped. Cost: linear in panels, directions and openings.
std::vector<FaceSeen> seenFaces(const Motion& motion, std::span<const SheetOrder> order,
                                const CardBase& card, const KeyedVector<FaceIndex, Face>& faces,
                                std::stop_token stop = {});

std::vector<SeenClass> seenClasses(const std::vector<FaceSeen>& seen);

/// The opening at which the card is displayed, or the nearest at which it is used.
double displayOpening_rad(const CardBase& card, const Assembly& assembly);

/// The directions, from the card to the eye.
const std::vector<Vec3>& sightDirections();

} // namespace hinge
