// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/geom/symmetric.h"
#include <Eigen/Eigenvalues>

namespace hinge {

SymmetricParts symmetricParts(const Eigen::MatrixXd& matrix) {
  const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> solver(matrix);
  return {solver.eigenvalues(), solver.eigenvectors()};
}

} // namespace hinge
