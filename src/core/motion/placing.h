// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

/// Bodies of the placements at an opening, by closed form or put together in at most `tries` tries.
/// Structures that cannot stand there, and those on them, are marked in `missing`. `near` is the
/// motion of a design that differs a little, if there is one.
BodyPoses placeAll(const Assembly& assembly, const Mechanism& mechanism, double opening_rad,
                   std::vector<char>& missing, int tries, const Motion* near);

} // namespace hinge
