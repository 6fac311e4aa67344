// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/dress/layers.h"

namespace hinge {

/// One place where a layer goes.
struct MatPlace {
  FaceIndex face;
  std::size_t layer = 0; ///< in the stack of that face
  bool mirrored = false; ///< beside the first of its line
};

/// Equal layers, to be cut together. Outlines are as looked at; a paper that looks the same from
/// both sides, and a shape that is its own mirror image, know no hands.
struct MatLine {
  std::string paper;
  Region outline;    ///< of the first
  double up_rad = 0; ///< of the first; see CutLayer
  bool handed = false;
  std::vector<MatPlace> places;
  int count() const { return static_cast<int>(places.size()); }
  /// Of the hand of the first one ("left"), and of the other.
  int left() const;
  int right() const { return count() - left(); }
  Vec2 size_mm() const { return boundsOf(outline).size(); }
};

/// All layers of all faces, in the order in which they come, equal ones in one line. A pattern that
/// has an upright must come to lie the same way too.
std::vector<MatLine> matList(const Design& design, const std::vector<DressedFace>& dressed);

/// What is needed of one paper: for the pieces cut from it and for layers.
struct PaperNeed {
  std::string paper;
  int pieces = 0, mats = 0;
  double area_mm2 = 0;
  /// No fewer sheets than this will do: by area, and by whether the largest fits at all. How they
  /// are laid out comes with cutting.
  int sheetsAtLeast = 0;
  bool tooLarge = false;     ///< something is larger than every sheet of it
  std::optional<int> atHand; ///< when the drawer knows
};
std::vector<PaperNeed> paperNeeds(const Design& design, const Assembly& assembly,
                                  const std::vector<MatLine>& mats);

} // namespace hinge
