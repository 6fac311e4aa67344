// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/blocks.h"

namespace hinge {

// What following a motion from node to node, and laying it into the shut state, have in common.

/// Value at `t` of the polynomial through up to four points.
Eigen::VectorXd interpolate(const std::vector<std::pair<double, const Eigen::VectorXd*>>& points,
                            double t);

/// Which bodies are where they belong: first those of the base, then block by block.
std::vector<char> baseBodies(const Mechanism& m);
bool parentsPlaced(const Block& block, const std::vector<char>& placed);
void markPlaced(const Block& block, std::vector<char>& placed);

} // namespace hinge
