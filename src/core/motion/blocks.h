// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/mechanism.h"
#include "core/units/tolerances.h"
#include <Eigen/Core>
#include <algorithm>
#include <cmath>

namespace hinge {

/// A part of the mechanism that can be solved by itself once the bodies of earlier blocks are in
/// place. Found from the joint graph alone: the shortest ring through bodies already placed,
/// widened by neighbouring rings as long as it has freedoms that those take away. Solving block
/// after block keeps the cost linear in the number of structures.
struct Block {
  struct Step { ///< places `child` from `parent` by one unknown fold angle
    PairIndex pair;
    BodyIndex parent, child;
    double turn; ///< sign of the child's rotation about the joint's axis per unit of fold angle
    std::vector<int> moves; ///< steps whose child hangs on this step's child, itself included
  };
  std::vector<Step> steps;
  std::vector<PairIndex> closing; ///< joints that must meet: one ring each
  std::vector<BodyIndex> needs;   ///< bodies of earlier blocks that it hangs on
  std::vector<std::array<int, 2>>
      ends; ///< step that places the left/right body of a closing joint, -1 if placed before
  /// Of every ring: how far its ends may stay apart (mm), because its pins and slides have play. A
  /// joint of several rings shares its play out among them.
  std::vector<double> play_mm;
  double size_mm = 1;                    ///< scale of the residual
  double closed_mm = motion::kClosed_mm; ///< gap below which its rings count as closed
  /// What paper gives at each end of each ring where they miss closing (mm); 0 where it need not.
  double given_mm = 0;
  /// Norm of the residual below which it has a place at all.
  double shown_mm() const {
    return std::max(closed_mm, given_mm * std::sqrt(2.0 * static_cast<double>(closing.size())));
  }
  int freedoms = 0; ///< unknowns that the rings leave free at a generic pose
};

using BodyPoses = IndexedVector<BodyIndex, Iso3>;

/// Places the block's bodies in `poses` for the angles `x`.
void placeBlock(const Mechanism& mechanism, const Block& block,
                const Eigen::Ref<const Eigen::VectorXd>& x, BodyPoses& poses);

/// What the rings of a block leave open (mm, 6 rows per closing joint: both ends of the fold line
/// seen from both bodies).
void closureResidual(const Mechanism& mechanism, const Block& block, const BodyPoses& poses,
                     Eigen::VectorXd& out);
/// Its Jacobian by the fold angles (mm per rad), analytic.
void closureJacobian(const Mechanism& mechanism, const Block& block, const BodyPoses& poses,
                     Eigen::MatrixXd& out);

/// What is left of the residual of the rings when play has taken up what it can: the two ends of a
/// closing joint may stand apart by as much, but only in the same direction.
Eigen::VectorXd beyondPlay(const Block& block, Eigen::VectorXd residual);

/// How far the ends of a ring are apart where that is most (mm), of a residual as above.
double widestGap_mm(const Eigen::VectorXd& residual);

/// Number of unknowns the rings leave free at the given poses: columns minus rank, singular values
/// below 1e-6 of the largest, or below what rounding makes of hinges on one line, counted as zero.
int freedomsAt(const Mechanism& mechanism, const Block& block, const BodyPoses& poses);

/// Bodies in the order in which they are placed, each with the joint it hangs on: parents first.
using PairTree = std::vector<std::pair<BodyIndex, PairIndex>>;

/// The tree, breadth first from what is placed, of the wanted bodies that can be reached through
/// one another.
PairTree treeOver(const Mechanism& mechanism, const std::vector<char>& wanted,
                  const std::vector<char>& placed);

/// The block that places the bodies of a tree when the bodies marked in `placed` are there; all
/// other joints between them close rings. A slide cannot close one (its line does not tell how far
/// it has run): it takes the place of the joint its body hangs on. The freedoms are not counted
/// yet.
Block blockFromTree(const Mechanism& mechanism, const Assembly& assembly, PairTree tree,
                    const std::vector<char>& placed);

/// Splits the mechanism; `reference` is any generic pose. Bodies in `skip` are left out.
std::vector<Block> splitIntoBlocks(const Mechanism& mechanism, const Assembly& assembly,
                                   const BodyPoses& reference, const std::vector<char>& skip);

} // namespace hinge
