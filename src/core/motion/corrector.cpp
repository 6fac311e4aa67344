#include "core/motion/corrector.h"
#include "core/motion/tolerances.h"
#include <Eigen/Eigenvalues>

namespace hinge {

Correction correct(const Mechanism& mechanism, const Block& block, Eigen::VectorXd& x, BodyPoses& poses) {
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
  Eigen::VectorXd trial;
  Closure next;
  for (; result.iterations < kMostCorrections && size > floor; ++result.iterations) {
    const Eigen::MatrixXd normal = closure.jacobian.transpose() * closure.jacobian;
    const Eigen::VectorXd gradient = closure.jacobian.transpose() * closure.residual;
    const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> eigen(normal);
    const double strongest = eigen.eigenvalues().tail<1>()[0], noise = kRoundingLever * block.size_mm;
    if (!(strongest > noise * noise)) break;
    bool better = false;
    for (int attempt = 0; attempt < 8 && !better; ++attempt) {
      Eigen::VectorXd step = Eigen::VectorXd::Zero(x.size());
      for (Eigen::Index i = 0; i < x.size(); ++i) {
        const double lambda = eigen.eigenvalues()[i];
        if (lambda < std::max(kWeakDirection * kWeakDirection * strongest, noise * noise)) continue;
        const auto v = eigen.eigenvectors().col(i);
        step -= v * (v.dot(gradient) / (lambda + damping * strongest));
      }
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

} // namespace hinge
