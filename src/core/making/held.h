// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"

namespace hinge {

/// Per joint: whether it is made by now.
using MadeJoints = IndexedVector<JointIndex, char>;

/// A joint between two pieces that come made: no step of the work.
bool comesMade(const Assembly& assembly, const Joint& joint);

/// Those that come made; nothing else is.
MadeJoints madeAtFirst(const Assembly& assembly);

/// What folds and the joints that are made hold together. Its pairs know their folds; their joints
/// are counted among those that are made.
Mechanism heldBy(const Assembly& whole, const MadeJoints& made);

/// Per body a number, shared by bodies that are connected without the hinges that are in no ring
/// (bridges). A depth-first walk.
std::vector<int> ringNumbers(const Mechanism& mechanism);

} // namespace hinge
