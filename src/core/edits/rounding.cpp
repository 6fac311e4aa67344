// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edits/rounding.h"
#include "core/edits/free_lengths.h"
#include "core/edits/lattice_program.h"
#include "core/structures/assemble.h"
#include "core/structures/registry.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>

namespace hinge {
namespace {

/// How far a length is moved to see what it does to the rings; what is a sum comes out exactly.
constexpr double kTry_mm = 0.125;
/// Coefficients and sums are whole but for rounding.
constexpr double kWhole = 1e-6;
/// Finer steps are tried by halves down to this.
constexpr double kFinestStep_mm = 0.02;

class Rounder {
public:
  Rounder(const Design& design, const Motion& motion, double step_mm, RoundingKeeps keeps)
      : m_design(design), m_lengths(freeLengthsOf(design)) {
    m_program.step = step_mm;
    for (const FreeLength& length : m_lengths.all)
      m_program.variables.push_back({length.value_mm, length.least_mm, length.most_mm, false});
    const Assembly& assembly = motion.assembly();
    for (FoldIndex f : assembly.folds.indices())
      m_shut.push(motion.shutAngle(f));
    if (keeps == RoundingKeeps::Motion) {
      // No angle of a kind that folds have by their making.
      constexpr double kSomewhere = 0.47;
      m_opening_rad = motion.low_rad() + kSomewhere * (motion.high_rad() - motion.low_rad());
      m_open = foldAngles(motion, m_opening_rad);
    }
    m_now = *measured(assembly);
    m_panels = assembly.panels.size(), m_joints = assembly.joints.size();
  }

  Result<void> hold(const std::set<std::string>& keys) {
    for (const std::string& key : keys) {
      bool known = false;
      for (std::size_t k = 0; k < m_lengths.all.size(); ++k)
        if (m_lengths.all[k].key == key || m_lengths.all[k].owner == key)
          known = m_program.variables[k].held = true;
      if (!known) return Error{{"proportion.unknown", key}, ""};
    }
    // What is the same on both sides of something is held on both.
    for (const auto& [a, b] : m_lengths.twins)
      if (m_program.variables[a].held || m_program.variables[b].held)
        m_program.variables[a].held = m_program.variables[b].held = true;
    return {};
  }

  /// What each length does to the rings and tabs, and the conditions that follow.
  void findConditions(std::stop_token stop) {
    std::vector<Row> shut(m_now.shut.size()), open(m_now.open.size()), slack(m_now.slack.size());
    for (std::size_t k = 0; k < m_lengths.all.size() && !stop.stop_requested(); ++k) {
      auto up = measuredWith(k, kTry_mm), down = measuredWith(k, -kTry_mm);
      if (!up && !down) {
        leave(k, "round.left/no-room");
        continue;
      }
      // At the end of its range one side has to do.
      if (!up) up = mirroredAt(*down);
      if (!down) down = mirroredAt(*up);
      slopes(k, m_now.shut, up->shut, down->shut, shut, true);
      slopes(k, m_now.open, up->open, down->open, open, true);
      slopes(k, m_now.slack, up->slack, down->slack, slack, false);
    }
    for (std::size_t r = 0; r < shut.size(); ++r)
      ring(shut[r], m_now.shut[r]);
    for (const Row& row : open)
      asItMoves(row);
    for (std::size_t r = 0; r < slack.size(); ++r)
      tab(slack[r], m_now.slack[r]);
    for (const auto& [a, b] : m_lengths.twins)
      add({{{a, 1}, {b, -1}}, 0, false});
    for (const auto& [first, left, right, last] : m_lengths.mirrored)
      add(sumOf({{first, 1}, {left, -1}, {right, -1}, {last, 1}}));
    for (const auto& [lower, upper] : m_lengths.neighbours)
      if (m_lengths.all[upper].value_mm - m_lengths.all[lower].value_mm < 2 * m_program.step)
        add({{{upper, 1}, {lower, -1}}, m_program.step, true});
  }

  Result<Rounding> solve(std::chrono::duration<double> most, std::stop_token stop,
                         const Progress& progress) {
    const LatticeAnswer answer = nearestOnLattice(m_program, most, stop, progress);
    if (answer.end == LatticeAnswer::End::Stopped) return Error{"round.stopped", ""};
    if (answer.end == LatticeAnswer::End::Impossible) return impossible(answer, most, stop);
    Rounding out{m_design, {}, 0, m_program.conditions.size(), answer.greatest, answer.sum, {}};
    for (std::size_t k = 0; k < m_lengths.all.size(); ++k) {
      if (m_program.variables[k].held) continue;
      ++out.lengths;
      const FreeLength& length = m_lengths.all[k];
      if (answer.values[k] == length.value_mm) continue;
      length.set(out.design, answer.values[k]);
      if (std::abs(answer.values[k] - length.value_mm) > kTouch_mm)
        out.changes.push_back({length.key, length.label, length.value_mm, answer.values[k]});
    }
    for (auto& reason : m_lengths.left)
      if (std::ranges::find(out.left, reason.first, &std::pair<std::string, Text>::first) ==
          out.left.end())
        out.left.push_back(reason);
    if (auto done = settled(out.design); !done) return done.error();
    return out;
  }

private:
  using Condition = LatticeProgram::Condition;
  using Row = std::map<std::size_t, double>; ///< by the length, what one millimetre of it does
  struct Measured {
    std::vector<double> shut, open, slack;
  };

  std::optional<Measured> measured(const Assembly& assembly) const {
    if (assembly.folds.size() != m_shut.size()) return std::nullopt;
    Measured all{ringGaps(assembly, m_shut, 0), {}, glueSlacks(assembly)};
    if (m_open.size() > 0) all.open = ringGaps(assembly, m_open, m_opening_rad);
    return all;
  }

  void leave(std::size_t k, Text why) {
    if (m_program.variables[k].held) return;
    m_program.variables[k].held = true;
    m_lengths.left.push_back({m_lengths.all[k].key, std::move(why)});
  }

  std::optional<Measured> measuredWith(std::size_t k, double by_mm) const {
    Design changed = m_design;
    m_lengths.all[k].set(changed, m_lengths.all[k].value_mm + by_mm);
    const auto assembled = assembleDesign(changed);
    if (!assembled || assembled->panels.size() != m_panels || assembled->joints.size() != m_joints)
      return std::nullopt;
    auto all = measured(*assembled);
    if (!all || all->shut.size() != m_now.shut.size() || all->open.size() != m_now.open.size() ||
        all->slack.size() != m_now.slack.size())
      return std::nullopt;
    return all;
  }

  /// What would be measured on the other side if all grew evenly.
  Measured mirroredAt(const Measured& one) const {
    Measured other = m_now;
    const auto turn = [](std::vector<double>& to, const std::vector<double>& from) {
      for (std::size_t r = 0; r < to.size(); ++r)
        to[r] += to[r] - from[r];
    };
    turn(other.shut, one.shut), turn(other.open, one.open), turn(other.slack, one.slack);
    return other;
  }

  /// What does not grow evenly with a length leaves it as it is, or (`strict` false) is no
  /// condition.
  void slopes(std::size_t k, const std::vector<double>& now, const std::vector<double>& up,
              const std::vector<double>& down, std::vector<Row>& rows, bool strict) {
    for (std::size_t r = 0; r < now.size(); ++r) {
      const double slope = (up[r] - now[r]) / kTry_mm, other = (now[r] - down[r]) / kTry_mm;
      if (std::abs(slope) < kWhole && std::abs(other) < kWhole) continue;
      if (std::abs(slope - other) > kWhole) {
        if (strict) leave(k, "round.left/slanted");
        if (!strict) rows[r][k] = std::numeric_limits<double>::quiet_NaN();
        continue;
      }
      rows[r][k] = slope;
    }
  }

  static bool isHalf(double c) { return std::abs(2 * c - std::round(2 * c)) < 2 * kWhole; }

  /// Angles that stay as they are keep every sum of lengths that lie the same way: those with the
  /// same share in the ring.
  void asItMoves(const Row& row) {
    std::map<long, std::vector<std::pair<std::size_t, int>>> alike;
    for (const auto& [k, slope] : row)
      alike[std::lround(std::abs(slope) * 1e5)].push_back({k, slope > 0 ? 1 : -1});
    for (const auto& [share, terms] : alike)
      add(sumOf(terms));
  }

  /// A tab that is flush stays flush, one that is near an edge stays inside.
  void tab(const Row& row, double slack_mm) {
    constexpr double kNear = 4; // steps: no further does anything move
    if (row.empty() || slack_mm > kNear * m_program.step || slack_mm < -kSameVertex_mm) return;
    if (!std::ranges::all_of(row, [](const auto& term) { return isHalf(term.second); })) return;
    std::vector<std::pair<std::size_t, int>> terms;
    for (const auto& [k, slope] : row)
      terms.push_back({k, static_cast<int>(std::lround(2 * slope))});
    Condition made = sumOf(terms);
    if (made.terms.empty()) return;
    made.atLeast = slack_mm > kSameVertex_mm;
    if (made.atLeast) made.sum -= 2 * slack_mm;
    add(std::move(made));
  }

  /// A ring as a condition in whole numbers, or its lengths left as they are.
  void ring(const Row& row, double gap) {
    if (row.empty()) return;
    bool whole = true;
    for (const auto& [k, slope] : row)
      whole = whole && (m_program.variables[k].held || isHalf(slope));
    // A ring that does not close now is not there to be kept.
    const bool closes = std::abs(gap) < kSameVertex_mm;
    if (!whole || !closes) {
      for (const auto& [k, slope] : row)
        leave(k, closes ? "round.left/slanted" : "round.left/open");
      return;
    }
    std::vector<std::pair<std::size_t, int>> terms;
    for (const auto& [k, slope] : row)
      if (!m_program.variables[k].held || isHalf(slope))
        terms.push_back({k, static_cast<int>(std::lround(2 * slope))});
    Condition made = sumOf(terms);
    if (made.terms.empty()) return;
    int divisor = 0;
    for (const auto& [k, c] : made.terms)
      divisor = std::gcd(divisor, c);
    if (made.terms.front().second < 0) divisor = -divisor;
    for (auto& [k, c] : made.terms)
      c /= divisor;
    made.sum /= divisor;
    add(std::move(made));
  }

  /// The sum that these come to now.
  Condition sumOf(const std::vector<std::pair<std::size_t, int>>& terms) const {
    std::map<std::size_t, int> times; // what is in the middle of a sheet comes twice
    for (const auto& [k, c] : terms)
      times[k] += c;
    std::erase_if(times, [](const auto& term) { return term.second == 0; });
    Condition made{{times.begin(), times.end()}, 0, false};
    for (const auto& [k, c] : made.terms)
      made.sum += c * m_lengths.all[k].value_mm;
    if (std::abs(made.sum) < kSameVertex_mm) made.sum = 0;
    return made;
  }

  void add(Condition condition) {
    const bool known = std::ranges::any_of(m_program.conditions, [&](const Condition& other) {
      return other.terms == condition.terms && other.atLeast == condition.atLeast;
    });
    const bool moves = std::ranges::any_of(
        condition.terms, [&](const auto& term) { return !m_program.variables[term.first].held; });
    if (!known && moves) m_program.conditions.push_back(std::move(condition));
  }

  Error impossible(const LatticeAnswer& answer, std::chrono::duration<double> most,
                   std::stop_token stop) const {
    std::string sum;
    if (answer.condition)
      for (const auto& [k, c] : m_program.conditions[*answer.condition].terms) {
        sum += sum.empty() ? (c < 0 ? "-" : "") : (c < 0 ? " - " : " + ");
        if (std::abs(c) != 1) sum += std::to_string(std::abs(c)) + " ";
        sum += m_lengths.all[k].key;
      }
    const double total = answer.condition ? m_program.conditions[*answer.condition].sum : 0;
    LatticeProgram finer = m_program;
    for (finer.step /= 2; finer.step >= kFinestStep_mm; finer.step /= 2)
      if (nearestOnLattice(finer, most, stop).end == LatticeAnswer::End::Found)
        return Error{{"round.impossible", Millimetres{m_program.step}, sum, Millimetres{total},
                      Millimetres{finer.step}},
                     ""};
    return Error{{"round.impossible/none", Millimetres{m_program.step}, sum, Millimetres{total}},
                 ""};
  }

  static Result<void> settled(Design& design) {
    if (auto valid = validateCard(design.card); !valid) return valid.error();
    for (StructureItem& item : design.structures)
      if (auto done = waysOf(item).settle(item, item.id.text()); !done) return done.error();
    const auto assembled = assembleDesign(design);
    if (!assembled) return assembled.error();
    return {};
  }

  const Design& m_design;
  FreeLengths m_lengths;
  LatticeProgram m_program;
  IndexedVector<FoldIndex, double> m_shut;
  IndexedVector<FoldIndex, double> m_open; ///< angles that are kept; empty: none
  double m_opening_rad = 0;                ///< at which the folds have them
  Measured m_now;
  std::size_t m_panels = 0, m_joints = 0;
};

} // namespace

Result<Rounding> roundedTo(const Design& design, const Motion& motion, double step_mm,
                           const std::set<std::string>& held, RoundingKeeps keeps,
                           std::chrono::duration<double> most, std::stop_token stop,
                           const Progress& progress) {
  if (!(step_mm >= kFinestStep_mm && step_mm <= 50))
    return Error{{"round.step", Millimetres{kFinestStep_mm}}, ""};
  Rounder rounder(design, motion, step_mm, keeps);
  if (auto done = rounder.hold(held); !done) return done.error();
  rounder.findConditions(stop);
  if (stop.stop_requested()) return Error{"round.stopped", ""};
  return rounder.solve(most, stop, progress);
}

} // namespace hinge
