// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/blocks.h"

namespace hinge {

struct Correction {
  double residual_mm = 0; ///< after the last step
  double moved_rad = 0;   ///< largest change of a fold angle against the start
  int iterations = 0;
};

/// Closes the rings of a block from the angles `x` by damped Gauss-Newton steps. Singular
/// directions of the Jacobian stay where the predictor put them (bifurcation at flat states).
/// `poses` holds the earlier bodies and receives the block's. Cost O(n^3) in the block's unknowns,
/// usually 3.
Correction correct(const Mechanism& mechanism, const Block& block, Eigen::VectorXd& x,
                   BodyPoses& poses);

} // namespace hinge
