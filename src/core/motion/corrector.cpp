// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/corrector.h"
#include "core/geom/symmetric.h"
#include "core/units/tolerances.h"
#include <Eigen/Cholesky>

namespace hinge {

namespace {

constexpr int kSmall = 4; ///< most folds that turn in a small block

template <int N> using Angles = Eigen::Matrix<double, Eigen::Dynamic, 1, 0, N, 1>;

/// The normal equations of one correction and their damped solutions. Where the rings leave no
/// direction weak, which is the rule, a Cholesky factor solves them; else the eigenvectors of J'J
/// tell which directions to leave alone. The small blocks that most are need no memory of
/// their own: their sizes are at most N.
template <int N> class Directions {
public:
  Directions(const Eigen::MatrixXd& jacobian, const Eigen::VectorXd& residual) {
    const auto n = jacobian.cols();
    m_normal.resize(n, n);
    m_normal.noalias() = jacobian.transpose() * jacobian;
    m_gradient.resize(n);
    m_gradient.noalias() = jacobian.transpose() * residual;
    m_factor.compute(m_normal);
    const auto pivots = m_factor.vectorD();
    m_strongest = pivots.maxCoeff();
    m_regular =
        m_factor.info() == Eigen::Success && pivots.minCoeff() > kSafelyRegular * m_strongest;
    if (m_regular) return;
    m_parts = symmetricParts(m_normal);
    m_strongest = m_parts.values[n - 1];
  }
  double strongest() const { return m_strongest; }
  /// Damped step without the directions whose eigenvalue is below `weakest`.
  void step(double weakest, double damping, Angles<N>& out) const {
    if (m_regular && damping == 0) {
      out = -m_factor.solve(m_gradient);
      return;
    }
    if (m_regular) {
      Matrix damped = m_normal;
      damped.diagonal().array() += damping;
      out = -Eigen::LDLT<Matrix>(damped).solve(m_gradient);
      return;
    }
    out.setZero(m_parts.values.size());
    for (Eigen::Index i = 0; i < m_parts.values.size(); ++i) {
      if (m_parts.values[i] < weakest) continue;
      const auto direction = m_parts.vectors.col(i);
      out -= direction * (direction.dot(m_gradient) / (m_parts.values[i] + damping));
    }
  }

private:
  using Matrix = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, 0, N, N>;
  /// Least pivot, as a share of the largest, that leaves no doubt: four orders above what counts as
  /// weak (kWeakDirection squared), more than pivots and eigenvalues ever differ in such small
  /// systems.
  static constexpr double kSafelyRegular = 1e4 * motion::kWeakDirection * motion::kWeakDirection;
  Matrix m_normal;
  Angles<N> m_gradient;
  Eigen::LDLT<Matrix> m_factor;
  SymmetricParts m_parts; ///< of what is not regular
  double m_strongest = 0;
  bool m_regular = false;
};

template <int N>
Correction correctSized(const Mechanism& mechanism, const Block& block, Eigen::VectorXd& x,
                        BodyPoses& poses) {
  using namespace motion;
  Correction result;
  placeBlock(mechanism, block, x, poses);
  if (block.closing.empty()) return result;
  const Angles<N> start = x;
  Angles<N> trial, step;
  Eigen::VectorXd residual, next;
  Eigen::MatrixXd jacobian;
  closureResidual(mechanism, block, poses, residual);
  double size = residual.norm();
  const double floor = kResidualFloor * block.size_mm;
  double damping = 0;
  bool better = true; // `poses` are those of `x`
  for (; result.iterations < kMostCorrections && size > floor; ++result.iterations) {
    closureJacobian(mechanism, block, poses, jacobian);
    const Directions<N> directions(jacobian, residual);
    const double strongest = directions.strongest(), noise = kRoundingLever * block.size_mm;
    if (!(strongest > noise * noise)) break;
    better = false;
    for (int attempt = 0; attempt < 8 && !better; ++attempt) {
      directions.step(std::max(kWeakDirection * kWeakDirection * strongest, noise * noise),
                      damping * strongest, step);
      const double largest = step.cwiseAbs().maxCoeff();
      if (largest > kLargestStep_rad) step *= kLargestStep_rad / largest;
      trial = x + step;
      placeBlock(mechanism, block, trial, poses);
      closureResidual(mechanism, block, poses, next);
      const double nextSize = next.norm();
      if (nextSize < size) {
        const bool stagnant = nextSize > 0.5 * size && size < 1e-9 * block.size_mm;
        better = true;
        x = trial;
        std::swap(residual, next);
        size = nextSize;
        damping = damping > 1e-12 ? damping * 0.1 : 0.0;
        if (stagnant) attempt = 8, result.iterations = kMostCorrections;
      } else {
        if (size < 1e-10 * block.size_mm) break; // rounding noise, nothing left to gain
        damping = damping > 0 ? damping * 10 : 1e-6;
      }
    }
    if (!better) break;
  }
  if (!better) placeBlock(mechanism, block, x, poses);
  result.moved_rad = (x - start).cwiseAbs().maxCoeff();
  result.residual_mm = beyondPlay(block, std::move(residual)).norm();
  return result;
}

} // namespace

Correction correct(const Mechanism& mechanism, const Block& block, Eigen::VectorXd& x,
                   BodyPoses& poses) {
  return block.steps.size() <= kSmall ? correctSized<kSmall>(mechanism, block, x, poses)
                                      : correctSized<Eigen::Dynamic>(mechanism, block, x, poses);
}

} // namespace hinge
