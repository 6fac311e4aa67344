#pragma once
#include "core/base/result.h"
#include "core/motion/motion.h"
#include <span>
#include <string>

namespace hinge {

/// The openings of the folded frames when nothing else is asked for (degrees).
inline constexpr double kFoldFrames_deg[] = {5, 45, 90, 135, 175};

/// FOLD 1.1 text: the top frame is the flat pattern of all pieces in mm, laid out beside one
/// another; then one folded frame per opening with the same faces. Glued faces stand in
/// "hinge-lantern:glued_faces" as pairs [tab, host], face keys in "hinge-lantern:face_keys". Fails
/// when a structure does not reach an opening.
Result<std::string> motionToFold(const Motion& motion, std::span<const double> openings_deg);

} // namespace hinge
