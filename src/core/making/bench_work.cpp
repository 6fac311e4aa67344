// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/bench_work.h"
#include <algorithm>

namespace hinge {
namespace {
/// Longer than that nobody works at one step: the lid was closed, or there was a pause.
constexpr double kLongest_s = 20 * 60;
/// Sooner nothing is done: steps are leafed through.
constexpr double kShortest_s = 2;
/// Timers are shown as ended for so long.
constexpr double kShown_s = 60;
} // namespace

BenchWork::BenchWork(const WorkPlan& plan, const Assembly& assembly, std::vector<int> parts,
                     WorkRecord record, double now_s)
    : m_plan(&plan), m_names(stepNames(plan, assembly)), m_parts(std::move(parts)),
      m_record(std::move(record)) {
  for (const Piece& piece : assembly.pieces)
    m_pieceKeys.push_back(piece.key);
  m_parts.resize(m_names.size(), 1);
  const int known = indexOf(m_record.current);
  const int part = m_record.part;
  std::size_t first = 0;
  while (first + 1 < steps() && done(first))
    ++first;
  arrive(known >= 0 ? static_cast<std::size_t>(known) : first, now_s);
  if (known >= 0) m_record.part = std::clamp(part, 0, m_parts[m_current] - 1);
}

int BenchWork::indexOf(const std::string& name) const {
  const auto found = std::ranges::find(m_names, name);
  return found == m_names.end() ? -1 : static_cast<int>(found - m_names.begin());
}

bool BenchWork::done(std::size_t step) const {
  return std::ranges::count(m_record.done, m_names[step]) > 0;
}

std::size_t BenchWork::doneCount() const {
  std::size_t count = 0;
  for (std::size_t k = 0; k < steps(); ++k)
    count += done(k);
  return count;
}

void BenchWork::arrive(std::size_t step, double now_s) {
  m_current = step;
  m_record.current = m_names[step];
  m_record.part = 0;
  m_since_s = now_s;
}

void BenchWork::tick(double now_s) {
  const WorkStep& step = m_plan->steps[m_current];
  if (!done(m_current)) m_record.done.push_back(m_names[m_current]);
  const double took = now_s - m_since_s;
  if (step.hands_s > 0 && took > kShortest_s && took < kLongest_s)
    m_record.times.push_back(
        {m_names[m_current], std::string(keyOf(step.kind)), step.hands_s, took});
  // What must set begins when it is pressed, not when the waiting is looked at.
  const bool waits = m_current + 1 < steps() && m_plan->steps[m_current + 1].kind == WorkKind::Wait;
  if (step.kind != WorkKind::Join || !waits) return;
  std::erase_if(m_record.timers,
                [&](const WorkRecord::Timer& t) { return t.step == m_names[m_current]; });
  m_record.timers.push_back({m_names[m_current], now_s + step.waits_s});
}

void BenchWork::next(double now_s) {
  if (m_record.part + 1 < m_parts[m_current]) {
    ++m_record.part;
    return;
  }
  tick(now_s);
  std::size_t to = m_current;
  while (to + 1 < steps() && done(to))
    ++to;
  if (to == m_current || (to + 1 == steps() && done(to))) return arrive(m_current, now_s);
  arrive(to, now_s);
}

void BenchWork::back(double now_s) {
  if (m_record.part > 0) {
    --m_record.part;
    return;
  }
  if (m_current == 0) return;
  goTo(m_current - 1, now_s);
  m_record.part = m_parts[m_current] - 1;
}

void BenchWork::goTo(std::size_t step, double now_s) {
  arrive(std::min(step, steps() - 1), now_s);
  std::erase(m_record.done, m_names[m_current]);
}

std::vector<PieceIndex> BenchWork::wrong(const std::string& word, double now_s) {
  const WorkStep& step = m_plan->steps[m_current];
  WorkRecord::Miss miss{m_names[m_current], word, now_s, {}};
  // Of a joint the piece that was put on is spoiled; of other work what was worked on.
  std::vector<PieceIndex> pieces = step.pieces;
  if (!step.joints.empty() && pieces.size() > 1) pieces.resize(1);
  for (PieceIndex piece : pieces)
    miss.pieces.push_back(m_pieceKeys[static_cast<std::size_t>(piece.value)]);
  m_record.misses.push_back(std::move(miss));
  std::erase(m_record.done, m_names[m_current]);
  return pieces;
}

bool BenchWork::measure(double mm, double now_s) {
  const WorkStep& step = m_plan->steps[m_current];
  m_record.measured.push_back({m_names[m_current], mm, step.number_mm, now_s});
  return std::abs(mm - step.number_mm) <= step.within_mm + 1e-9;
}

std::vector<BenchWork::Running> BenchWork::running(double now_s) const {
  std::vector<Running> all;
  for (const WorkRecord::Timer& timer : m_record.timers)
    if (const int step = indexOf(timer.step); step >= 0 && timer.ends_s - now_s > -kShown_s)
      all.push_back({static_cast<std::size_t>(step), timer.ends_s - now_s});
  return all;
}

std::vector<std::size_t> BenchWork::ended(double now_s) {
  std::vector<std::size_t> all;
  for (WorkRecord::Timer& timer : m_record.timers) {
    if (timer.heard || timer.ends_s > now_s) continue;
    timer.heard = true;
    if (const int step = indexOf(timer.step); step >= 0)
      all.push_back(static_cast<std::size_t>(step));
  }
  return all;
}

double BenchWork::setting_s(double now_s) const {
  double most = 0;
  const WorkStep& step = m_plan->steps[m_current];
  const auto shared = [&](const WorkStep& other) {
    return std::ranges::any_of(
        other.pieces, [&](PieceIndex piece) { return std::ranges::count(step.pieces, piece) > 0; });
  };
  for (const Running& timer : running(now_s)) {
    const bool waits = step.kind == WorkKind::Wait && timer.step + 1 == m_current;
    if (waits || shared(m_plan->steps[timer.step]) || step.kind == WorkKind::Open)
      most = std::max(most, timer.left_s);
  }
  return most;
}

} // namespace hinge
