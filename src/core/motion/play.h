// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/blocks.h"

namespace hinge {

/// Shares the play of the pins and slides out among the rings of a block that they are in (decision
/// 20).
void allowPlay(const Mechanism& mechanism, const Assembly& assembly, Block& block);

} // namespace hinge
