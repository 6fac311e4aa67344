// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/states/in_plane.h"
#include "core/states/order_seen.h"
#include "core/states/order_ties.h"
#include <algorithm>
#include <map>

namespace hinge {
namespace {

/// Whether there is an order in which everything seen is true.
class InPlaneSearch {
public:
  InPlaneSearch(const Motion& motion, const InPlaneOptions& options, std::stop_token stop)
      : m_options(options), m_stop(stop), m_sheets(motion, m_solver, options.only, stop) {}

  InPlaneReport run() {
    m_sheets.addOwnWay();
    m_sheets.addHands(m_options.shown_rad);
    m_seen = seenOrders(m_sheets, m_stop);
    tieOrders(m_sheets, m_solver, m_stop);
    if (m_stop.stop_requested()) return {};
    for (const SeenThrough& one : m_seen.through)
      note(one.sheet, one.leaf, one.depth_mm, one.moment, one.place);
    decide();
    return std::move(m_report);
  }

private:
  void note(PanelIndex first, PanelIndex second, double depth_mm, std::size_t moment,
            const Vec3& place) {
    const SheetMoment& m = m_sheets.moments()[moment];
    const auto same = std::ranges::find_if(m_report.hits, [&](const InPlaneHit& hit) {
      return ordered(hit.first, hit.second) == ordered(first, second);
    });
    const double at = m.pose.opening_rad;
    const InPlaneHit hit{first, second, depth_mm, at, at, at, place, m.hand != 0};
    if (same == m_report.hits.end()) {
      m_report.hits.push_back(hit);
      return;
    }
    const double from = std::min(same->from_rad, at), to = std::max(same->to_rad, at);
    if (depth_mm > same->depth_mm) *same = hit;
    same->from_rad = from, same->to_rad = to;
  }

  /// Facts are taken one by one, those of the card's own way first: what contradicts the ones
  /// before it is where paper would pass through paper.
  void decide() {
    constexpr int kTries = 20000;
    OrderSolver::Known known = m_solver.nothing();
    takeOf(0, known);
    OrderSolver::Known all = known;
    const auto found = m_solver.decide(all, kTries);
    if (found == OrderSolver::Found::CutOff) m_report.decided = false;
    if (found == OrderSolver::Found::No) noteFirstWithoutOrder(kTries);
    tellOrder(all, known);
    std::vector<OrderSolver::Known> afterwards;
    for (int hand = 1; hand <= static_cast<int>(m_sheets.lifts().size()); ++hand) {
      OrderSolver::Known there = known;
      m_solver.settle(there, hand);
      takeOf(hand, there);
      afterwards.push_back(std::move(there));
    }
    for (int one = 1; one <= static_cast<int>(afterwards.size()); ++one)
      for (int other = one + 1; other <= static_cast<int>(afterwards.size()); ++other)
        if (m_sheets.lifts()[static_cast<std::size_t>(one - 1)] !=
            m_sheets.lifts()[static_cast<std::size_t>(other - 1)])
          lookAtBoth(one, other, afterwards[static_cast<std::size_t>(one - 1)]);
  }

  /// No fact contradicts those before it, and yet there is no order: the first fact with which
  /// there is none is told.
  void noteFirstWithoutOrder(int tries) {
    OrderSolver::Known known = m_solver.nothing();
    for (const SeenOrder& seen : m_seen.orders) {
      if (m_sheets.moments()[seen.moment].hand != 0 || !m_solver.take(seen.fact, known)) continue;
      OrderSolver::Known tried = known;
      if (m_solver.decide(tried, tries) != OrderSolver::Found::No) continue;
      return note(seen.first, seen.second, seen.depth_mm, seen.moment, seen.place);
    }
  }

  /// Over the card's own way; what lies on one another beside an end does so at the end.
  void tellOrder(const OrderSolver::Known& known, const OrderSolver::Known& certain) {
    const double first = m_sheets.motion().low_rad(), last = m_sheets.motion().high_rad();
    std::map<int, std::size_t> running; // by statement
    int before = -1;
    const auto& moments = m_sheets.moments();
    for (std::size_t at = 0; at < moments.size() && moments[at].hand == 0; ++at) {
      const double t = moments[at].pose.opening_rad;
      std::map<int, std::size_t> now;
      for (const auto& [pair, lying] : moments[at].lying) {
        const signed char value = known[static_cast<std::size_t>(lying->statement)];
        if (value == 0) continue;
        const auto was = running.find(lying->statement);
        std::size_t row = m_report.order.size();
        if (was != running.end())
          row = was->second;
        else
          m_report.order.push_back({pair.first, pair.second, value > 0, before < 0 ? first : t, t,
                                    certain[static_cast<std::size_t>(lying->statement)] == 0});
        m_report.order[row].to_rad = t;
        now.emplace(lying->statement, row);
      }
      running = std::move(now), before = static_cast<int>(at);
    }
    for (const auto& [statement, row] : running)
      m_report.order[row].to_rad = last;
  }

  /// Whether what one hand shows of the order leaves room for another's way.
  void lookAtBoth(int one, int other, OrderSolver::Known known) {
    if (startOf(one) != startOf(other)) return;
    m_solver.settle(known, other);
    for (const SeenOrder& seen : m_seen.orders) {
      if (m_sheets.moments()[seen.moment].hand != other || m_solver.take(seen.fact, known, other))
        continue;
      const auto told = [&](const InPlaneHit& hit) {
        return ordered(hit.first, hit.second) == ordered(seen.first, seen.second);
      };
      if (std::ranges::any_of(m_report.hits, told)) continue; // neither can move
      m_report.inTurn.push_back({seen.first, seen.second});
      return;
    }
  }
  /// The moment from which a hand sets out.
  int startOf(int hand) const {
    for (const SheetMoment& m : m_sheets.moments())
      if (m.hand == hand) return m.before;
    return -1;
  }
  void takeOf(int hand, OrderSolver::Known& known) {
    for (const SeenOrder& seen : m_seen.orders)
      if (m_sheets.moments()[seen.moment].hand == hand && !m_solver.take(seen.fact, known, hand))
        note(seen.first, seen.second, seen.depth_mm, seen.moment, seen.place);
  }

  InPlaneOptions m_options;
  std::stop_token m_stop;
  OrderSolver m_solver;
  SheetsInPlane m_sheets;
  SeenOrders m_seen;
  InPlaneReport m_report;
};

} // namespace

InPlaneReport findInPlaneHits(const Motion& motion, const InPlaneOptions& options,
                              std::stop_token stop) {
  return InPlaneSearch(motion, options, stop).run();
}

} // namespace hinge
