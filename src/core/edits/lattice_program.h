// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/progress.h"
#include <chrono>
#include <cstddef>
#include <optional>
#include <stop_token>
#include <utility>
#include <vector>

namespace hinge {

/// Values that are to move to the multiples of a step, while sums of them keep what they come to.
struct LatticeProgram {
  struct Variable {
    double value = 0; ///< as it is
    double least = -1e6, most = 1e6;
    bool held = false; ///< keeps its value, on the lattice or not
  };
  /// The sum of `coefficient` times variable must come to `sum`, or to that at least.
  struct Condition {
    std::vector<std::pair<std::size_t, int>> terms;
    double sum = 0;
    bool atLeast = false;
  };
  double step = 1;
  std::vector<Variable> variables;
  std::vector<Condition> conditions;
};

/// How a search for lattice points ended.
struct LatticeAnswer {
  enum class End { Found, Impossible, Stopped };
  End end = End::Stopped;
  std::vector<double> values; ///< Found: per variable, multiples of the step or held
  double greatest = 0;        ///< the largest change
  double sum = 0;             ///< of all changes
  /// Impossible: the first condition that the lattice does not allow, by itself or together with
  /// those before it.
  std::optional<std::size_t> condition;
};

/// The lattice point with the least greatest change and, among those, the least sum of changes; an
/// integer program, solved in the parts that no condition connects (branch and cut of GLPK). Sums
/// are kept exactly, in integers. `progress` is told how many parts of how many are done.
LatticeAnswer nearestOnLattice(const LatticeProgram& program, std::chrono::duration<double> most,
                               std::stop_token stop = {}, const Progress& progress = {});

} // namespace hinge
