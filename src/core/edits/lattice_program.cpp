// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/lattice_program.h"
#include <algorithm>
#include <cmath>
#include <glpk.h>
#include <memory>
#include <numeric>

namespace hinge {
namespace {

using Clock = std::chrono::steady_clock;
using Variable = LatticeProgram::Variable;

/// Sums of lattice values differ from what they must come to by rounding alone, in steps.
constexpr double kWholeRow = 1e-5;

/// One part of a program: its variables that move, and the conditions between them with what is
/// held taken to the other side, all in steps.
struct Part {
  struct Row {
    std::size_t condition = 0;
    std::vector<std::pair<int, int>> terms; ///< column, coefficient
    double sum = 0;
  };
  std::vector<std::size_t> variables;
  std::vector<Row> rows;  ///< must come to their sums
  std::vector<Row> least; ///< to these at least
};

/// All whole solutions of a part's rows: one of them, and the ways from it to the others.
struct Solutions {
  std::vector<long> one;
  std::vector<std::vector<long>> ways; ///< each as long as `one`
};

/// Rows in whole numbers, solved by elimination of columns (each step unimodular, so that no whole
/// solution is lost). Nothing when there is none: then `rows` of them have none already.
class Elimination {
public:
  explicit Elimination(std::size_t columns) : m_columns(columns) {
    for (std::size_t k = 0; k < columns; ++k) {
      m_unit.push_back(std::vector<long>(columns, 0));
      m_unit.back()[k] = 1;
    }
    m_one.assign(columns, 0);
  }

  /// Takes one more row in; false when it has no whole solution together with those before.
  bool add(const Part::Row& row) {
    std::vector<long> c(m_columns, 0);
    for (const auto& [column, coefficient] : row.terms)
      c[static_cast<std::size_t>(column)] = coefficient;
    const double whole = std::round(row.sum);
    if (std::abs(row.sum - whole) > kWholeRow) return false;
    long rest = static_cast<long>(whole) - dot(c, m_one);
    std::vector<long> along;
    for (const auto& way : m_unit)
      along.push_back(dot(c, way));
    // Euclid's way with the columns until one of them alone meets the row.
    for (;;) {
      std::size_t least = m_unit.size(), others = 0;
      for (std::size_t k = 0; k < along.size(); ++k)
        if (along[k] != 0) {
          ++others;
          if (least == m_unit.size() || std::abs(along[k]) < std::abs(along[least])) least = k;
        }
      if (others == 0) return rest == 0;
      if (others == 1) {
        if (rest % along[least] != 0) return false;
        step(m_one, m_unit[least], rest / along[least]);
        m_unit.erase(m_unit.begin() + static_cast<std::ptrdiff_t>(least));
        return true;
      }
      for (std::size_t k = 0; k < along.size(); ++k)
        if (k != least && along[k] != 0) {
          const long times = along[k] / along[least];
          step(m_unit[k], m_unit[least], -times);
          along[k] -= times * along[least];
        }
    }
  }

  Solutions solutions() {
    // Short ways make short searches: each is shortened by the others while that helps.
    for (bool shorter = true; shorter;) {
      shorter = false;
      for (std::size_t i = 0; i < m_unit.size(); ++i)
        for (std::size_t j = 0; j < m_unit.size(); ++j) {
          if (i == j) continue;
          const auto times =
              static_cast<long>(std::lround(static_cast<double>(dot(m_unit[i], m_unit[j])) /
                                            static_cast<double>(dot(m_unit[j], m_unit[j]))));
          if (times == 0) continue;
          std::vector<long> tried = m_unit[i];
          step(tried, m_unit[j], -times);
          if (dot(tried, tried) < dot(m_unit[i], m_unit[i]))
            m_unit[i] = std::move(tried), shorter = true;
        }
    }
    return {m_one, m_unit};
  }

private:
  static long dot(const std::vector<long>& a, const std::vector<long>& b) {
    return std::inner_product(a.begin(), a.end(), b.begin(), 0L);
  }
  static void step(std::vector<long>& to, const std::vector<long>& way, long times) {
    for (std::size_t k = 0; k < to.size(); ++k)
      to[k] += times * way[k];
  }
  std::size_t m_columns;
  std::vector<std::vector<long>> m_unit; ///< ways that are still free
  std::vector<long> m_one;
};

struct Solved {
  LatticeAnswer::End end = LatticeAnswer::End::Stopped;
  std::vector<double> steps; ///< per column, whole
  double objective = 0;
};

class Solver {
public:
  Solver(const LatticeProgram& program, Clock::time_point until, std::stop_token stop)
      : m_program(program), m_until(until), m_stop(stop) {
    glp_term_out(GLP_OFF);
  }

  /// Least greatest change when `within` is not given; else the least sum of changes of at most
  /// that.
  Solved solve(const Part& part, std::optional<double> within) const {
    Elimination elimination(part.variables.size());
    for (const Part::Row& row : part.rows)
      if (!elimination.add(row)) return {LatticeAnswer::End::Impossible, {}, 0};
    const Solutions all = elimination.solutions();
    const std::unique_ptr<glp_prob, void (*)(glp_prob*)> model(glp_create_prob(), glp_delete_prob);
    build(model.get(), part, all, within);
    glp_iocp how;
    glp_init_iocp(&how);
    how.msg_lev = GLP_MSG_OFF;
    how.presolve = GLP_ON;
    how.cb_func = [](glp_tree* tree, void* self) {
      if (static_cast<const Solver*>(self)->over()) glp_ios_terminate(tree);
    };
    how.cb_info = const_cast<Solver*>(this);
    const double left = std::chrono::duration<double>(m_until - Clock::now()).count();
    if (left <= 0 || m_stop.stop_requested()) return {};
    how.tm_lim = std::max(1, static_cast<int>(1000 * left));
    const int code = glp_intopt(model.get(), &how);
    const int status = glp_mip_status(model.get());
    if (code == GLP_ENOPFS || (code == 0 && status == GLP_NOFEAS))
      return {LatticeAnswer::End::Impossible, {}, 0};
    if (code != 0 || status != GLP_OPT) return {};
    Solved out{LatticeAnswer::End::Found, {}, glp_mip_obj_val(model.get())};
    for (std::size_t k = 0; k < part.variables.size(); ++k) {
      double steps = static_cast<double>(all.one[k]);
      for (std::size_t w = 0; w < all.ways.size(); ++w)
        steps += static_cast<double>(all.ways[w][k]) *
                 std::round(glp_mip_col_val(model.get(), static_cast<int>(w) + 1));
      out.steps.push_back(steps);
    }
    return out;
  }

private:
  bool over() const { return m_stop.stop_requested() || Clock::now() >= m_until; }

  /// Columns: the times that each way is gone, then how far each variable is off, then the greatest
  /// of these.
  void build(glp_prob* model, const Part& part, const Solutions& all,
             std::optional<double> within) const {
    const int ways = static_cast<int>(all.ways.size()), n = static_cast<int>(part.variables.size());
    const int greatest = ways + n + 1;
    glp_set_obj_dir(model, GLP_MIN);
    glp_add_cols(model, greatest);
    for (int w = 1; w <= ways; ++w)
      glp_set_col_kind(model, w, GLP_IV), glp_set_col_bnds(model, w, GLP_FR, 0, 0);
    glp_set_col_bnds(model, greatest, within ? GLP_DB : GLP_LO, 0, within.value_or(0));
    glp_set_obj_coef(model, greatest, within ? 0 : 1);
    // A combination of variables as one of ways, less what the solution itself comes to.
    const auto sumOf = [&](const std::vector<std::pair<int, int>>& terms) {
      std::pair<std::vector<std::pair<int, double>>, double> sum;
      for (const auto& [column, c] : terms)
        sum.second += c * static_cast<double>(all.one[static_cast<std::size_t>(column)]);
      for (int w = 0; w < ways; ++w) {
        long times = 0;
        for (const auto& [column, c] : terms)
          times += c * all.ways[static_cast<std::size_t>(w)][static_cast<std::size_t>(column)];
        if (times) sum.first.push_back({w + 1, static_cast<double>(times)});
      }
      return sum;
    };
    for (int k = 0; k < n; ++k) {
      const Variable& v = m_program.variables[part.variables[static_cast<std::size_t>(k)]];
      const int change = ways + k + 1;
      glp_set_col_bnds(model, change, GLP_LO, 0, 0);
      glp_set_obj_coef(model, change, within ? 1 : 0);
      const auto [terms, base] = sumOf({{k, 1}});
      const double at = v.value / m_program.step - base;
      auto over = terms, under = terms;
      over.push_back({change, -1}), under.push_back({change, 1});
      addRow(model, over, GLP_UP, at);
      addRow(model, under, GLP_LO, at);
      addRow(model, {{change, 1}, {greatest, -1}}, GLP_UP, 0);
      if (terms.empty()) continue;
      addRow(model, terms, GLP_LO, std::ceil(v.least / m_program.step - kWholeRow) - base);
      addRow(model, terms, GLP_UP, std::floor(v.most / m_program.step + kWholeRow) - base);
    }
    for (const Part::Row& row : part.least) {
      const auto [terms, base] = sumOf(row.terms);
      addRow(model, terms, GLP_LO, std::ceil(row.sum - kWholeRow) - base);
    }
  }

  static void addRow(glp_prob* model, const std::vector<std::pair<int, double>>& terms, int kind,
                     double bound) {
    const int row = glp_add_rows(model, 1);
    glp_set_row_bnds(model, row, kind, bound, bound);
    std::vector<int> columns{0}; // counted from 1
    std::vector<double> coefficients{0};
    for (const auto& [column, coefficient] : terms)
      columns.push_back(column), coefficients.push_back(coefficient);
    glp_set_mat_row(model, row, static_cast<int>(terms.size()), columns.data(),
                    coefficients.data());
  }

  const LatticeProgram& m_program;
  Clock::time_point m_until;
  std::stop_token m_stop;
};

/// The parts of a program that no condition connects, in the order of their first variables.
std::vector<Part> partsOf(const LatticeProgram& program) {
  std::vector<std::size_t> parent(program.variables.size());
  std::iota(parent.begin(), parent.end(), std::size_t{0});
  const std::function<std::size_t(std::size_t)> root = [&](std::size_t v) {
    while (parent[v] != v)
      v = parent[v] = parent[parent[v]];
    return v;
  };
  const auto moves = [&](std::size_t v) { return !program.variables[v].held; };
  const auto connect = [&](std::size_t a, std::size_t b) {
    const auto [low, high] = std::minmax({root(a), root(b)});
    parent[high] = low;
  };
  for (const auto& condition : program.conditions) {
    std::optional<std::size_t> first;
    for (const auto& [v, coefficient] : condition.terms)
      if (moves(v)) connect(first.value_or(v), v), first = first.value_or(v);
  }
  std::vector<Part> parts;
  std::vector<std::pair<std::size_t, int>> at(program.variables.size());
  std::vector<std::optional<std::size_t>> partOf(program.variables.size());
  for (std::size_t v = 0; v < program.variables.size(); ++v) {
    if (!moves(v)) continue;
    auto& part = partOf[root(v)];
    if (!part) part = parts.size(), parts.emplace_back();
    at[v] = {*part, static_cast<int>(parts[*part].variables.size())};
    parts[*part].variables.push_back(v);
  }
  Part fixed; // conditions between nothing but held values
  for (std::size_t c = 0; c < program.conditions.size(); ++c) {
    Part::Row row{c, {}, program.conditions[c].sum / program.step};
    Part* part = &fixed;
    for (const auto& [v, coefficient] : program.conditions[c].terms)
      if (moves(v))
        part = &parts[at[v].first], row.terms.push_back({at[v].second, coefficient});
      else
        row.sum -= coefficient * program.variables[v].value / program.step;
    (program.conditions[c].atLeast ? part->least : part->rows).push_back(std::move(row));
  }
  if (!fixed.rows.empty() || !fixed.least.empty()) parts.push_back(std::move(fixed));
  return parts;
}

/// The first condition of a part that has no whole solution together with those before it; when
/// all have, what must come to something at least is in the way, or the variables' own limits.
std::optional<std::size_t> culprit(const Part& part) {
  Elimination elimination(part.variables.size());
  for (const Part::Row& row : part.rows)
    if (!elimination.add(row)) return row.condition;
  return part.least.empty() ? std::nullopt : std::optional(part.least.front().condition);
}

} // namespace

LatticeAnswer nearestOnLattice(const LatticeProgram& program, std::chrono::duration<double> most,
                               std::stop_token stop, const Progress& progress) {
  // The library keeps an environment for each thread; its memory is counted there.
  const auto until = Clock::now() + std::chrono::duration_cast<Clock::duration>(most);
  const Solver solver(program, until, stop);
  const std::vector<Part> parts = partsOf(program);
  const std::size_t all = 2 * parts.size();
  std::size_t done = 0;
  const auto tell = [&] {
    if (progress) progress(++done, all);
  };
  LatticeAnswer answer;
  double greatest = 0;
  for (const Part& part : parts) {
    const Solved solved = solver.solve(part, {});
    if (solved.end != LatticeAnswer::End::Found) {
      answer.end = solved.end;
      if (solved.end == LatticeAnswer::End::Impossible) answer.condition = culprit(part);
      return answer;
    }
    greatest = std::max(greatest, solved.objective);
    tell();
  }
  answer.values.resize(program.variables.size());
  for (std::size_t v = 0; v < program.variables.size(); ++v)
    answer.values[v] = program.variables[v].value;
  for (const Part& part : parts) {
    const Solved solved = solver.solve(part, greatest + kWholeRow);
    if (solved.end != LatticeAnswer::End::Found) {
      answer.end = LatticeAnswer::End::Stopped;
      return answer;
    }
    for (std::size_t k = 0; k < part.variables.size(); ++k) {
      const std::size_t v = part.variables[k];
      answer.values[v] = solved.steps[k] * program.step;
      const double change = std::abs(answer.values[v] - program.variables[v].value);
      answer.greatest = std::max(answer.greatest, change), answer.sum += change;
    }
    tell();
  }
  answer.end = LatticeAnswer::End::Found;
  return answer;
}

} // namespace hinge
