// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/motion.h"
#include "core/structures/assemble.h"
#include "designs.h"
#include <benchmark/benchmark.h>
#include <ceres/ceres.h>
#include <chrono>

// The pose of a design at 181 openings, solved by the engine and by a general least-squares library
// from the same closure. Both run in one benchmark, so that their ratio comes from one moment of
// one machine.

namespace hinge::bench {
namespace {

using Clock = std::chrono::steady_clock;

double seconds(Clock::time_point from) {
  return std::chrono::duration<double>(Clock::now() - from).count();
}

/// A rigid motion whose numbers may be dual numbers.
template <typename T> struct Rigid {
  Eigen::Matrix<T, 3, 3> turn;
  Eigen::Matrix<T, 3, 1> shift;

  static Rigid of(const Iso3& m) { return {m.linear().cast<T>(), m.translation().cast<T>()}; }
  static Rigid about(const Vec3& point, const Vec3& axis, const T& angle) {
    using std::cos, std::sin, ceres::cos, ceres::sin;
    const T c = cos(angle), s = sin(angle);
    const Eigen::Matrix<T, 3, 1> a = axis.cast<T>(), p = point.cast<T>();
    Eigen::Matrix<T, 3, 3> cross;
    cross << T(0), -a.z(), a.y(), a.z(), T(0), -a.x(), -a.y(), a.x(), T(0);
    Rigid r;
    r.turn = c * Eigen::Matrix<T, 3, 3>::Identity() + s * cross + (T(1) - c) * (a * a.transpose());
    r.shift = p - r.turn * p;
    return r;
  }
  Rigid operator*(const Rigid& other) const {
    return {turn * other.turn, turn * other.shift + shift};
  }
  Eigen::Matrix<T, 3, 1> operator()(const Vec3& p) const { return turn * p.cast<T>() + shift; }
};

/// One ring: both ends of the closing fold seen from both bodies. The bodies hang on the base by
/// chains of folds.
struct Ring {
  struct Link {
    const Pair* pair;
    bool toRight;
    int unknown; ///< place in the parameter list
  };
  const Pair* closing;
  std::array<std::vector<Link>, 2>
      chains;                       ///< from the base outwards, to the left and the right body
  std::array<const Iso3*, 2> bases; ///< pose of the base body of each chain at the present opening

  template <typename T> bool operator()(T const* const* x, T* residual) const {
    std::array<Rigid<T>, 2> body;
    for (std::size_t side = 0; side < 2; ++side) {
      body[side] = Rigid<T>::of(*bases[side]);
      for (const Link& link : chains[side]) {
        const Pair& j = *link.pair;
        const T angle = x[link.unknown][0];
        if (link.toRight)
          body[side] = body[side] * Rigid<T>::about(j.leftFrom, j.leftAxis, T(-angle)) *
                       Rigid<T>::of(j.home);
        else
          body[side] = body[side] * Rigid<T>::of(j.homeInverse) *
                       Rigid<T>::about(j.leftFrom, j.leftAxis, angle);
      }
    }
    Eigen::Map<Eigen::Matrix<T, 6, 1>> r(residual);
    r.template head<3>() = body[0](closing->leftFrom) - body[1](closing->rightFrom);
    r.template tail<3>() = body[0](closing->leftTo) - body[1](closing->rightTo);
    return true;
  }
};

/// The whole design as one sparse problem, derivatives by dual numbers, each opening started from
/// the last.
class GeneralSolver {
public:
  explicit GeneralSolver(const Motion& motion) : m_motion(motion) {
    const Mechanism& m = motion.mechanism();
    m_base.assign(m.bodies.size(), Iso3::Identity());
    std::map<int, std::pair<const Block::Step*, int>> stepOf; // by body
    for (const Block& block : motion.parts())
      for (const auto& step : block.steps) {
        stepOf[step.child.value] = {&step, static_cast<int>(m_angles.size())};
        m_angles.push_back(0);
        m_pairs.push_back(step.pair);
      }
    for (const Block& block : motion.parts())
      for (PairIndex closing : block.closing) {
        auto ring = std::make_unique<Ring>();
        ring->closing = &m.pairs[closing];
        std::vector<int> unknowns;
        for (std::size_t side = 0; side < 2; ++side) {
          BodyIndex body = side == 0 ? ring->closing->left : ring->closing->right;
          auto& chain = ring->chains[side];
          for (auto it = stepOf.find(body.value); it != stepOf.end();
               it = stepOf.find(body.value)) {
            const auto& [step, unknown] = it->second;
            auto place = std::ranges::find(unknowns, unknown);
            if (place == unknowns.end()) unknowns.push_back(unknown), place = unknowns.end() - 1;
            chain.push_back({&m.pairs[step->pair], m.pairs[step->pair].left == step->parent,
                             static_cast<int>(place - unknowns.begin())});
            body = step->parent;
          }
          std::reverse(chain.begin(), chain.end());
          ring->bases[side] = &m_base[body];
        }
        auto* cost = new ceres::DynamicAutoDiffCostFunction<Ring, 8>(ring.release());
        std::vector<double*> parameters;
        for (int unknown : unknowns)
          cost->AddParameterBlock(1),
              parameters.push_back(&m_angles[static_cast<std::size_t>(unknown)]);
        cost->SetNumResiduals(6);
        m_problem.AddResidualBlock(cost, nullptr, parameters);
      }
  }

  std::size_t unknowns() const { return m_angles.size(); }

  void startFrom(const Pose& pose) {
    const Mechanism& m = m_motion.mechanism();
    for (std::size_t k = 0; k < m_angles.size(); ++k)
      m_angles[k] = m.foldAngle(m.pairs[m_pairs[k]], bodyPose(pose, m.pairs[m_pairs[k]].left),
                                bodyPose(pose, m.pairs[m_pairs[k]].right));
  }

  /// Residual (mm) that is left.
  double solve(const Pose& pages) {
    const Mechanism& m = m_motion.mechanism();
    m.placeBase(m_motion.assembly(), pages.opening_rad, m_base);
    ceres::Solver::Options options;
    options.linear_solver_type = ceres::SPARSE_NORMAL_CHOLESKY;
    options.max_num_iterations = 50;
    options.function_tolerance = options.parameter_tolerance = 1e-14,
    options.gradient_tolerance = 1e-12;
    options.num_threads = 1, options.logging_type = ceres::SILENT;
    ceres::Solver::Summary summary;
    ceres::Solve(options, &m_problem, &summary);
    return std::sqrt(2 * summary.final_cost);
  }

private:
  Iso3 bodyPose(const Pose& pose, BodyIndex body) const {
    const PanelIndex panel = m_motion.mechanism().bodies[body].panels.front();
    return pose.panels[panel] * m_motion.mechanism().inBody[panel].inverse();
  }
  const Motion& m_motion;
  BodyPoses m_base;
  std::vector<double> m_angles;
  std::vector<PairIndex> m_pairs;
  ceres::Problem m_problem;
};

void poseAgainstGeneralSolver(benchmark::State& state) {
  const auto assembly =
      std::make_shared<const Assembly>(*assembleDesign(row(static_cast<int>(state.range(0)))));
  const Motion motion = Motion::trace(assembly);
  std::vector<Pose> pages;
  for (int deg = 0; deg <= 180; ++deg)
    pages.push_back(motion.poseAt(radians(std::clamp(double(deg), 0.5, 179.5))));
  GeneralSolver general(motion);
  double ours = 0, theirs = 0, ourWorst = 0, theirWorst = 0;
  for (auto _ : state) {
    auto from = Clock::now();
    for (const Pose& p : pages)
      ourWorst = std::max(ourWorst, motion.poseAt(p.opening_rad).residual_mm);
    ours += seconds(from);
    general.startFrom(pages.front());
    from = Clock::now();
    for (const Pose& p : pages)
      theirWorst = std::max(theirWorst, general.solve(p));
    theirs += seconds(from);
  }
  const double poses = 181.0 * static_cast<double>(state.iterations());
  state.counters["panels"] = static_cast<double>(assembly->panels.size());
  state.counters["unknowns"] = static_cast<double>(general.unknowns());
  state.counters["engine_ms_per_pose"] = 1e3 * ours / poses;
  state.counters["general_ms_per_pose"] = 1e3 * theirs / poses;
  state.counters["times_faster"] = theirs / ours;
  state.counters["engine_residual_mm"] = ourWorst;
  state.counters["general_residual_mm"] = theirWorst;
}
BENCHMARK(poseAgainstGeneralSolver)->Arg(15)->Iterations(3)->Unit(benchmark::kMillisecond);

} // namespace
} // namespace hinge::bench
