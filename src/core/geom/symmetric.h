// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <Eigen/Core>

namespace hinge {

/// What a symmetric matrix is made of. Compiled once: the templates behind it take long.
struct SymmetricParts {
  Eigen::VectorXd values;  ///< eigenvalues, least first
  Eigen::MatrixXd vectors; ///< a column of length 1 for each, square to one another
};
SymmetricParts symmetricParts(const Eigen::MatrixXd& matrix);

} // namespace hinge
