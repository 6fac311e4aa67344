#include "core/motion/corrector.h"
#include "core/motion/tolerances.h"
#include <Eigen/Eigenvalues>

namespace hinge {

namespace {

/// The eigenvectors of J'J and the gradient J'r, of a size known beforehand for the small blocks that most are.
template <int N> struct Directions {
  Eigen::Matrix<double, N, N> vectors;
  Eigen::Matrix<double, N, 1> values, gradient;

  explicit Directions(const Closure& closure) {
    const auto n = closure.jacobian.cols();
    Eigen::Matrix<double, N, N> normal(n, n);
    normal.noalias() = closure.jacobian.transpose() * closure.jacobian;
    gradient.resize(n);
    gradient.noalias() = closure.jacobian.transpose() * closure.residual;
    const Eigen::SelfAdjointEigenSolver<Eigen::Matrix<double, N, N>> eigen(normal);
    vectors = eigen.eigenvectors(), values = eigen.eigenvalues();
  }
  double strongest() const { return values[values.size() - 1]; }
  /// Damped step without the directions whose eigenvalue is below `weakest`.
  void step(double weakest, double damping, Eigen::VectorXd& out) const {
    out.setZero(values.size());
    for (Eigen::Index i = 0; i < values.size(); ++i) {
      if (values[i] < weakest) continue;
      out -= vectors.col(i) * (vectors.col(i).dot(gradient) / (values[i] + damping));
    }
  }
};

template <int N> Correction correctSized(const Mechanism& mechanism, const Block& block, Eigen::VectorXd& x, BodyPoses& poses) {
  using namespace motion;
  Correction result;
  placeBlock(mechanism, block, x, poses);
  if (block.closing.empty()) return result;
  const Eigen::VectorXd start = x;
  Closure closure;
  evaluateClosure(mechanism, block, poses, closure);
  double size = closure.residual.norm();
  const double floor = kResidualFloor * block.size_mm;
  double damping = 0;
  Eigen::VectorXd trial, step;
  Closure next;
  for (; result.iterations < kMostCorrections && size > floor; ++result.iterations) {
    const Directions<N> directions(closure);
    const double strongest = directions.strongest(), noise = kRoundingLever * block.size_mm;
    if (!(strongest > noise * noise)) break;
    bool better = false;
    for (int attempt = 0; attempt < 8 && !better; ++attempt) {
      directions.step(std::max(kWeakDirection * kWeakDirection * strongest, noise * noise), damping * strongest, step);
      const double largest = step.cwiseAbs().maxCoeff();
      if (largest > kLargestStep_rad) step *= kLargestStep_rad / largest;
      trial = x + step;
      placeBlock(mechanism, block, trial, poses);
      evaluateClosure(mechanism, block, poses, next);
      const double nextSize = next.residual.norm();
      if (nextSize < size) {
        const bool stagnant = nextSize > 0.5 * size && size < 1e-9 * block.size_mm;
        better = true;
        x = trial;
        std::swap(closure, next);
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
  placeBlock(mechanism, block, x, poses);
  result.residual_mm = size;
  result.moved_rad = (x - start).cwiseAbs().maxCoeff();
  return result;
}

} // namespace

Correction correct(const Mechanism& mechanism, const Block& block, Eigen::VectorXd& x, BodyPoses& poses) {
  switch (block.steps.size()) {
  case 1: return correctSized<1>(mechanism, block, x, poses);
  case 2: return correctSized<2>(mechanism, block, x, poses);
  case 3: return correctSized<3>(mechanism, block, x, poses);
  case 4: return correctSized<4>(mechanism, block, x, poses);
  default: return correctSized<Eigen::Dynamic>(mechanism, block, x, poses);
  }
}

} // namespace hinge
