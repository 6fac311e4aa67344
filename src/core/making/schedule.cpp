// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/schedule.h"
#include <algorithm>
#include <limits>

namespace hinge {
namespace {

/// Kinds that one tool does are one number.
int toolOf(const WorkStep& step) {
  switch (step.kind) {
  case WorkKind::Score: return 1;
  case WorkKind::Slice:
  case WorkKind::Cut: return 2;
  case WorkKind::Fold: return 3;
  case WorkKind::Cross:
  case WorkKind::Pencil: return 4;
  case WorkKind::Measure: return 5;
  case WorkKind::Splice:
  case WorkKind::Dress:
  case WorkKind::Join: return 6 + (step.adhesive ? static_cast<int>(*step.adhesive) : 20);
  default: return 0; // bare hands: nothing is taken up or put away
  }
}

class Scheduling {
public:
  Scheduling(const WorkPlan& plan, const ScheduleWays& ways) : m_plan(plan), m_ways(ways) {
    const auto copies = static_cast<std::size_t>(ways.copies);
    m_next.assign(copies, 0);
    m_done_s.assign(copies, 0);
    m_free.assign(copies, {});
    m_tail_s.assign(plan.steps.size() + 1, 0);
    for (std::size_t k = plan.steps.size(); k-- > 0;)
      m_tail_s[k] = m_tail_s[k + 1] + plan.steps[k].hands_s + setting(k);
    m_out.ready_s.assign(copies, 0);
  }

  Schedule run() {
    const std::size_t all = m_plan.steps.size() * m_next.size();
    for (std::size_t n = 0; n < all; ++n)
      doNext();
    m_out.end_s = *std::ranges::max_element(m_out.ready_s);
    return std::move(m_out);
  }

private:
  /// What a step leaves to set. Its own step of waiting takes no hands and is not counted again.
  double setting(std::size_t k) const {
    return m_plan.steps[k].kind == WorkKind::Wait ? 0 : m_plan.steps[k].waits_s;
  }

  /// When the next step of a card can begin: its own pieces have set, and the step before is done.
  double readyAt(std::size_t copy) const {
    const WorkStep& step = m_plan.steps[m_next[copy]];
    double at = m_done_s[copy];
    const bool whole = step.kind == WorkKind::Open || step.kind == WorkKind::Finish;
    for (const auto& [pieces, free] : m_free[copy])
      if (whole || std::ranges::any_of(step.pieces, [&set = pieces](PieceIndex p) {
            return std::ranges::count(set, p) > 0;
          }))
        at = std::max(at, free);
    if (setting(m_next[copy]) > 0) at = std::max(at, clipFreeAt());
    return at;
  }

  /// When one of the clips is free.
  double clipFreeAt() const {
    if (m_clips.size() < static_cast<std::size_t>(m_ways.clips)) return 0;
    std::vector<double> until = m_clips;
    std::ranges::sort(until, std::greater());
    return until[static_cast<std::size_t>(m_ways.clips) - 1];
  }

  void doNext() {
    std::optional<std::size_t> best;
    double begins = 0;
    for (std::size_t copy = 0; copy < m_next.size(); ++copy) {
      if (m_next[copy] >= m_plan.steps.size()) continue;
      const double at = std::max(m_now_s, readyAt(copy));
      if (!best || before(copy, at, *best, begins)) best = copy, begins = at;
    }
    rest(begins);
    work(*best, std::max(begins, m_now_s));
  }

  bool before(std::size_t a, double atA, std::size_t b, double atB) const {
    // Idle hands are the dearest; what waits less comes first, but for the price of a tool.
    const auto key = [&](std::size_t copy, double at) {
      const int tool = toolOf(m_plan.steps[m_next[copy]]);
      const bool change = tool != 0 && m_tool != 0 && tool != m_tool;
      if (m_ways.batching == Batching::CardByCard)
        return std::tuple(at, static_cast<double>(copy), 0.0);
      return std::tuple(at + (change ? m_ways.toolChange_s : 0), -m_tail_s[m_next[copy]],
                        static_cast<double>(copy));
    };
    return key(a, atA) < key(b, atB);
  }

  /// A break when hands have been busy for long; it falls into waiting when there is some.
  void rest(double begins) {
    if (begins - m_now_s >= m_ways.break_s) {
      m_out.breaks.push_back({m_now_s, begins});
      m_since_s = begins;
      return;
    }
    if (m_now_s - m_since_s < m_ways.breakAfter_s) return;
    m_out.breaks.push_back({m_now_s, m_now_s + m_ways.break_s});
    m_now_s += m_ways.break_s, m_since_s = m_now_s;
  }

  void work(std::size_t copy, double from) {
    const std::size_t k = m_next[copy]++;
    const WorkStep& step = m_plan.steps[k];
    const int tool = toolOf(step);
    double to = from + step.hands_s;
    if (tool != 0 && tool != m_tool) {
      if (m_tool != 0) {
        ++m_out.toolChanges;
        to += m_ways.toolChange_s;
      }
      m_tool = tool;
    }
    double free = to;
    if (const double sets = setting(k); sets > 0) {
      free = to + sets;
      m_free[copy].push_back({step.pieces, free});
      std::erase_if(m_clips, [&](double until) { return until <= from; });
      m_clips.push_back(free);
    }
    m_out.hands_s += to - from;
    m_out.work.push_back({static_cast<int>(copy), k, from, to, free});
    m_done_s[copy] = to, m_now_s = to;
    m_out.ready_s[copy] = std::max(m_out.ready_s[copy], free);
  }

  const WorkPlan& m_plan;
  const ScheduleWays& m_ways;
  Schedule m_out;
  std::vector<std::size_t> m_next; ///< per card: its next step
  std::vector<double> m_done_s;    ///< per card: when hands left it
  std::vector<std::vector<std::pair<std::vector<PieceIndex>, double>>> m_free;
  std::vector<double> m_tail_s; ///< per step: what is still to come from it on
  std::vector<double> m_clips;  ///< until when they are in use
  double m_now_s = 0, m_since_s = 0;
  int m_tool = 0;
};

} // namespace

double Schedule::ratio() const {
  const double least = std::max(hands_s, longest_s);
  return least > 0 ? end_s / least : 1;
}

Schedule scheduleOf(const WorkPlan& plan, const ScheduleWays& ways) {
  if (plan.steps.empty() || ways.copies < 1) return {};
  Schedule made = Scheduling(plan, ways).run();
  // One card alone, with clips enough, hands that need no break and tools that lie at hand.
  const ScheduleWays alone{1,
                           Batching::CardByCard,
                           std::numeric_limits<int>::max(),
                           0,
                           std::numeric_limits<double>::infinity(),
                           ways.break_s};
  made.longest_s = Scheduling(plan, alone).run().end_s;
  return made;
}

} // namespace hinge
