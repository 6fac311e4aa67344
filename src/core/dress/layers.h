// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/dress/face.h"
#include "core/motion/motion.h"

namespace hinge {

/// One layer as it is cut for a face, in the face's frame.
struct CutLayer {
  std::size_t layer = 0; ///< in its rule
  std::string paper;
  std::vector<Region> parts; ///< none: nothing is left of it
  double up_rad = 0;         ///< where the top of its pattern points: 0 along x, anticlockwise
};

/// A face with its stack, the lowest layer first.
struct DressedFace {
  FaceIndex face;
  std::size_t rule = 0; ///< in the dressing
  std::vector<CutLayer> layers;
};

/// Faces that wear something, in the order of the faces. `seen` as for reachedBy(); `displayed` is
/// the pose on display, for patterns that stand upright there.
std::vector<DressedFace> dressedFaces(const Design& design, const Assembly& assembly,
                                      const KeyedVector<FaceIndex, Face>& faces,
                                      const std::vector<SeenClass>& seen, const Pose& displayed);

/// The border that a layer has when it does not say: that of the settings, half of it on narrow
/// faces, on the maker's lattice.
double usualBorder_mm(const Settings& settings, const Region& face);

/// To which side of the face an edge belongs (0 foot, 1 right, 2 top, 3 left), by the way it looks
/// out of the paper, which is on its left hand.
std::size_t sideOf(const Edge& edge);

/// Clear of the line on which another piece stands, on either side, for a layer that lies over its
/// tab.
constexpr double kBesideStanding_mm = 0.5;

} // namespace hinge
