// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/order.h"
#include "core/making/access.h"
#include "core/structures/names.h"
#include <algorithm>
#include <cctype>
#include <fmt/format.h>
#include <utility>

namespace hinge {

std::string_view joinKey(JoinKind kind) {
  switch (kind) {
  case JoinKind::Glue: return "glue";
  case JoinKind::Slot: return "slot";
  case JoinKind::Pivot: return "pivot";
  case JoinKind::Slide: return "slide";
  case JoinKind::Band: return "band";
  }
  return "";
}

namespace {

JoinKind kindOf(HingeKind kind) {
  return kind == HingeKind::Slot    ? JoinKind::Slot
         : kind == HingeKind::Pivot ? JoinKind::Pivot
                                    : JoinKind::Slide;
}

/// All joints in the order of the design, hosts before guests.
std::vector<Join> joinsOf(const Assembly& a) {
  std::vector<Join> all;
  for (std::size_t k = 0; k < a.glues.size(); ++k)
    all.push_back(
        {JoinKind::Glue, a.panels[a.glues[k].tab].owner, a.glues[k].host, a.glues[k].tab, {k}});
  for (HingeIndex h : a.hinges.indices()) {
    const Hinge& hinge = a.hinges[h];
    const auto same = std::ranges::find_if(all, [&](const Join& j) {
      return hinge.kind == HingeKind::Slot && j.kind == JoinKind::Slot &&
             a.panels[j.first].piece == a.panels[hinge.first].piece &&
             a.panels[j.second].piece == a.panels[hinge.second].piece;
    });
    if (same != all.end())
      same->hinges.push_back(h);
    else
      all.push_back({kindOf(hinge.kind), hinge.owner, hinge.first, hinge.second, {}, {}, {h}});
  }
  for (std::size_t k = 0; k < a.links.size(); ++k)
    all.push_back(
        {JoinKind::Band, a.links[k].owner, a.links[k].panels[0], a.links[k].panels[1], {}, {k}});
  std::ranges::stable_sort(all, {}, [&](const Join& j) { return j.owner ? j.owner->value : -1; });
  return all;
}

/// What is joined so far.
class Making {
public:
  Making(const Motion& motion, double shown_rad, std::vector<Join> joins)
      : m_assembly(motion.assembly()), m_access(motion, shown_rad), m_joins(std::move(joins)),
        m_made(m_joins.size(), 0) {
    for (std::size_t j = 0; j < m_joins.size(); ++j)
      set(j, true);
  }

  AssemblyOrder run() {
    AssemblyOrder order;
    std::vector<Undone> undone;
    while (auto next = findNext()) {
      for (std::size_t j : next->joins)
        set(j, false);
      undone.push_back(std::move(*next));
    }
    for (std::size_t j = 0; j < m_joins.size(); ++j)
      if (m_made[j]) order.unreachable.push_back(m_joins[j]);
    std::ranges::reverse(undone);
    for (const Undone& step : undone) {
      JoinStep made;
      for (std::size_t j : step.joins)
        made.joins.push_back(m_joins[j]);
      made.byShutting = step.press == Press::ByShutting;
      order.steps.push_back(std::move(made));
    }
    if (order.unreachable.empty()) findWhatComesBefore(undone, order);
    return order;
  }

private:
  using Step = std::vector<std::size_t>;
  using Press = Access::Press;
  struct Undone {
    Step joins;
    Press press = Press::Openly;
  };

  /// What has to do for a step: a finger, if it was not made by shutting the card.
  static Press leastOf(const Undone& step) {
    return step.press == Press::ByShutting ? Press::ByShutting : Press::ByFinger;
  }

  void set(std::size_t j, bool made) {
    if (std::exchange(m_made[j], made) != made) m_access.set(m_joins[j], made);
  }

  /// Whether these can be made when all else is as it is now.
  bool comesUndone(const Step& step, Press press = Press::ByFinger) {
    std::vector<char> was;
    std::vector<const Join*> joins;
    for (std::size_t j : step) {
      was.push_back(m_made[j]);
      set(j, false);
      joins.push_back(&m_joins[j]);
    }
    const bool reached = m_access.reaches(joins, press);
    for (std::size_t k = 0; k < step.size(); ++k)
      set(step[k], was[k]);
    return reached;
  }

  /// The last joint that comes undone by itself, or else the last ones that do so together; the
  /// most open places first, so that what stands inside of something is made before that is closed.
  std::optional<Undone> findNext() {
    for (Press press : {Press::Openly, Press::ByFinger, Press::ByShutting}) {
      if (auto one = findOne(press)) return Undone{std::move(*one), press};
      if (auto some = findTogether(press)) return Undone{std::move(*some), press};
    }
    return std::nullopt;
  }

  std::optional<Step> findOne(Press press) {
    for (std::size_t j = m_joins.size(); j-- > 0;) {
      if (!m_made[j]) continue;
      if (comesUndone({j}, press)) return Step{j};
      if (const auto opens = whatOpens(j)) return Step{*opens};
    }
    return std::nullopt;
  }

  std::optional<Step> findTogether(Press press) {
    const auto pieceOf = [&](PanelIndex p) { return m_assembly.panels[p].piece; };
    for (bool anyHost : {false, true})
      for (std::size_t j = m_joins.size(); j-- > 0;) {
        if (!m_made[j]) continue;
        Step together;
        for (std::size_t k = 0; k < m_joins.size(); ++k) {
          const bool mine = pieceOf(m_joins[k].second) == pieceOf(m_joins[j].second);
          const bool same = pieceOf(m_joins[k].first) == pieceOf(m_joins[j].first);
          if (m_made[k] && mine && (anyHost || same)) together.push_back(k);
        }
        if (together.size() > 1 && comesUndone(together, press)) return together;
      }
    return std::nullopt;
  }

  /// A pin or band wants one side open rather than several: the joint that lets the hand in by
  /// itself.
  std::optional<std::size_t> whatOpens(std::size_t j) {
    if (m_joins[j].kind != JoinKind::Pivot && m_joins[j].kind != JoinKind::Band)
      return std::nullopt;
    for (std::size_t k = m_joins.size(); k-- > 0;) {
      if (!m_made[k] || k == j) continue;
      set(k, false);
      const bool lets = comesUndone({j});
      set(k, true);
      if (lets && comesUndone({k})) return k;
    }
    return std::nullopt;
  }

  /// A step that is out of reach in the finished card: after which one is it so?
  void findWhatComesBefore(const std::vector<Undone>& steps, AssemblyOrder& order) {
    for (std::size_t j = 0; j < m_joins.size(); ++j)
      set(j, true);
    std::vector<std::size_t> shutIn;
    for (std::size_t k = 0; k < steps.size(); ++k)
      if (!comesUndone(steps[k].joins, leastOf(steps[k]))) shutIn.push_back(k);
    for (std::size_t k : shutIn) {
      for (std::size_t j = 0; j < m_joins.size(); ++j)
        set(j, false);
      for (std::size_t done = 0; done <= k; ++done)
        for (std::size_t j : steps[done].joins)
          set(j, true);
      for (std::size_t later = k + 1; later < steps.size(); ++later) {
        for (std::size_t j : steps[later].joins)
          set(j, true);
        if (comesUndone(steps[k].joins, leastOf(steps[k]))) continue;
        order.steps[k].before = static_cast<int>(later);
        break;
      }
    }
  }

  const Assembly& m_assembly;
  Access m_access;
  std::vector<Join> m_joins;
  std::vector<char> m_made;
};

} // namespace

AssemblyOrder assemblyOrder(const Motion& motion, double shown_rad) {
  return Making(motion, shown_rad, joinsOf(motion.assembly())).run();
}

std::string describe(const Join& join, const Design& design, const Assembly& assembly) {
  const std::string first = panelOnSheet(design, assembly, join.first),
                    second = panelOnSheet(design, assembly, join.second);
  switch (join.kind) {
  case JoinKind::Glue: return fmt::format("glue {} to {}", second, first);
  case JoinKind::Slot:
    return join.hinges.size() > 1
               ? fmt::format("push the {} slots of {} and {} together", join.hinges.size(), second,
                             first)
               : fmt::format("push the slots of {} and {} together", second, first);
  case JoinKind::Pivot: return fmt::format("pin {} to {}", second, first);
  case JoinKind::Slide: return fmt::format("lay {} on {} so that it slides", second, first);
  case JoinKind::Band:
    return fmt::format("fasten the {} from {} to {}",
                       assembly.links[join.links.front()].elastic ? "band" : "film", first, second);
  }
  return "";
}

std::vector<std::string> describe(const AssemblyOrder& order, const Design& design,
                                  const Assembly& assembly) {
  const auto sentence = [](std::string text) {
    text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(text[0])));
    return text;
  };
  std::vector<std::string> all;
  for (const JoinStep& step : order.steps) {
    std::string text;
    for (const Join& join : step.joins)
      text += (text.empty() ? "" : ", and with it ") + describe(join, design, assembly);
    if (step.byShutting) text += ", shutting the card on it";
    if (step.before >= 0) text += fmt::format(", before step {} shuts it in", step.before + 1);
    all.push_back(sentence(std::move(text)));
  }
  for (const Join& join : order.unreachable)
    all.push_back(
        sentence(fmt::format("{}: out of reach in any order", describe(join, design, assembly))));
  return all;
}

} // namespace hinge
