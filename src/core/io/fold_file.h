// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/motion/motion.h"
#include <span>
#include <string>

namespace hinge {

/// The openings of the folded frames when nothing else is asked for (degrees).
inline constexpr double kFoldFrames_deg[] = {5, 45, 90, 135, 175};
/// The same, spread over the openings in which the card is used.
std::vector<double> foldFrames_deg(const Motion& motion);

/// FOLD 1.2 text: the top frame is the flat pattern of all pieces in mm, laid out beside one
/// another and planar; then one folded frame per opening with the same faces in the same order. A
/// panel with holes or bare cuts is several faces with "J" edges between them; cuts are "C"; a fold
/// that the motion bends to both sides is "U". Where paper parts at a cut the folded frames have
/// vertices, edges and faces of their own (creases first, numbered as in the top frame). Keys of
/// the panels stand in "hinge-lantern:face_keys", glued faces in "hinge-lantern:glued_faces" as
/// pairs [tab, host]. Fails when a structure does not reach an opening.
Result<std::string> motionToFold(const Motion& motion, std::span<const double> openings_deg);

} // namespace hinge
