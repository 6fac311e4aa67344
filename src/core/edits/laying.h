// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/sheet.h"
#include "core/motion/motion.h"

namespace hinge {

// Laying a panel of a sheet on a face of the card, as a hand does before it glues: where it would
// lie, what it snaps to, what is measured, and the joint that comes of it. Points of the sheet are
// in its flat frame, points of a face in that of the face (x along the line on which it stands, y
// away from it); mm, degrees.

/// A sheet held over a face.
struct HeldSheet {
  std::size_t kind = 0;   ///< number of the joint's word in kJointKeys
  Vec2 at = Vec2::Zero(); ///< a point of the panel that is held
  std::string on;         ///< key of the face
  Vec2 to = Vec2::Zero(); ///< where the point comes to lie
  double turn_deg = 0;    ///< from the face's x axis to the sheet's
  bool byFace = false;    ///< the sheet's face meets the card's
};

/// The way in which a sheet lies when it first comes over a face: with its scores as they must run
/// if all of them are parallel and it stands already; else along the line on which the face stands,
/// with the rest of the sheet towards that (away from it by its face, as a tab folded under lies).
/// A sheet without scores lies straight.
double turnFor(const Assembly& assembly, const Pose& pose, const SheetTarget& target,
               const PieceWork& work, const HeldSheet& lying);

/// It lies on the face by a side of its own: glue, pins and slides do.
bool liesFlat(const HeldSheet& lying);

/// From the sheet's flat frame into that of the face.
Iso3 onFace(const HeldSheet& lying);

/// The panel of the sheet that is held, as an outline in its flat frame.
Polygon heldPanel(const PieceWork& work, const Vec2& at);

/// The place with the panel's edges flush to folds and edges of what lies below that are nearer
/// than `reach_mm`, or its middle over that of the face or of what is glued there; else with its
/// distances on the lattice (0: as it is). `flush` says whether anything was met.
struct LaySnap {
  Vec2 to;
  bool flush = false;
};
LaySnap snappedLying(const Assembly& assembly, const PieceWork& work, const HeldSheet& lying,
                     double reach_mm, double lattice_mm);

/// How far the panel begins along the face and away from its line, and the point that has to be
/// `to` for it to begin elsewhere.
Vec2 layingStart(const PieceWork& work, const HeldSheet& lying);
Vec2 layingPointFor(const PieceWork& work, const HeldSheet& lying, const Vec2& start);

/// The joint. A slot runs in from the nearest edge of the sheet and out to the nearest edge of the
/// face; a band or film is as long as the way between its points is in the pose.
Result<PieceJoint> jointOf(const Design& design, const Assembly& assembly, const Pose& pose,
                           const SheetTarget& target, const HeldSheet& lying);

} // namespace hinge
