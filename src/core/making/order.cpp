// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/order.h"
#include "core/making/access.h"
#include "core/structures/names.h"
#include <algorithm>
#include <cctype>
#include <fmt/format.h>
#include <utility>

namespace hinge {

namespace {

/// A tab that closes its piece to a tube is glued while the piece lies by itself and flat: later it
/// is inside. A strap is closed round something.
bool closesTube(const Assembly& a, const Joint& joint) {
  const auto panels = panelsOf(joint);
  const PieceIndex piece = a.panels[panels[0]].piece;
  return std::holds_alternative<Glue>(joint) && piece == a.panels[panels[1]].piece &&
         std::ranges::none_of(a.pieces[piece].features, [](const Feature& feature) {
           return std::holds_alternative<Strap>(feature);
         });
}

/// All joints in the order of the design, hosts before guests; of one owner first what closes a
/// tube, then glue, then what guides, then bands and films.
std::vector<JointGroup> groupsOf(const Assembly& a) {
  std::vector<JointGroup> all;
  const auto piecesOf = [&](const Joint& joint) {
    const auto panels = panelsOf(joint);
    return std::array{a.panels[panels[0]].piece, a.panels[panels[1]].piece};
  };
  for (JointIndex j : a.joints.indices()) {
    if (comesMade(a, a.joints[j])) continue;
    const auto same = std::ranges::find_if(all, [&](const JointGroup& group) {
      const Joint& other = a.joints[group.front()];
      return std::holds_alternative<Slot>(a.joints[j]) && std::holds_alternative<Slot>(other) &&
             piecesOf(a.joints[j]) == piecesOf(other);
    });
    if (same != all.end())
      same->push_back(j);
    else
      all.push_back({j});
  }
  const auto rank = [&](const JointGroup& group) {
    const Joint& joint = a.joints[group.front()];
    const auto owner = a.ownerOf(joint);
    return std::pair(owner ? owner->value : -1, guideOf(joint)         ? 2
                                                : tieOf(joint)         ? 3
                                                : closesTube(a, joint) ? 0
                                                                       : 1);
  };
  std::ranges::stable_sort(all, {}, rank);
  return all;
}

/// What is joined so far.
class Making {
public:
  Making(const Motion& motion, double shown_rad, std::vector<JointGroup> groups)
      : m_assembly(motion.assembly()), m_access(motion, shown_rad), m_groups(std::move(groups)),
        m_made(m_groups.size(), 0) {
    for (std::size_t j = 0; j < m_groups.size(); ++j)
      set(j, true);
  }

  AssemblyOrder run() {
    AssemblyOrder order;
    std::vector<Undone> undone;
    while (auto next = findNext()) {
      for (std::size_t j : next->groups)
        set(j, false);
      undone.push_back(std::move(*next));
    }
    for (std::size_t j = 0; j < m_groups.size(); ++j)
      if (m_made[j]) order.unreachable.push_back(m_groups[j]);
    std::ranges::reverse(undone);
    for (const Undone& step : undone) {
      MakingStep made;
      for (std::size_t j : step.groups)
        made.joints.push_back(m_groups[j]);
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
    Step groups;
    Press press = Press::Openly;
  };

  /// What has to do for a step: a finger, if it was not made by shutting the card.
  static Press leastOf(const Undone& step) {
    return step.press == Press::ByShutting ? Press::ByShutting : Press::ByFinger;
  }

  const Joint& first(std::size_t group) const { return m_assembly.joints[m_groups[group].front()]; }
  void set(std::size_t j, bool made) {
    if (std::exchange(m_made[j], made) != made) m_access.set(m_groups[j], made);
  }

  /// Whether these can be made when all else is as it is now.
  bool comesUndone(const Step& step, Press press = Press::ByFinger) {
    std::vector<char> was;
    std::vector<const JointGroup*> groups;
    for (std::size_t j : step) {
      was.push_back(m_made[j]);
      set(j, false);
      groups.push_back(&m_groups[j]);
    }
    const bool reached = m_access.reaches(groups, press);
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
    for (std::size_t j = m_groups.size(); j-- > 0;) {
      if (!m_made[j]) continue;
      if (comesUndone({j}, press)) return Step{j};
      if (const auto opens = whatOpens(j)) return Step{*opens};
    }
    return std::nullopt;
  }

  std::optional<Step> findTogether(Press press) {
    const auto pieceOf = [&](std::size_t group, int side) {
      const PanelIndex panel = panelsOf(first(group))[static_cast<std::size_t>(side)];
      return m_assembly.panels[panel].piece;
    };
    for (bool anyHost : {false, true})
      for (std::size_t j = m_groups.size(); j-- > 0;) {
        if (!m_made[j]) continue;
        Step together;
        for (std::size_t k = 0; k < m_groups.size(); ++k) {
          const bool mine = pieceOf(k, 1) == pieceOf(j, 1);
          const bool same = pieceOf(k, 0) == pieceOf(j, 0);
          if (m_made[k] && mine && (anyHost || same)) together.push_back(k);
        }
        if (together.size() > 1 && comesUndone(together, press)) return together;
      }
    return std::nullopt;
  }

  /// A pin or band wants one side open rather than several: the joint that lets the hand in by
  /// itself.
  std::optional<std::size_t> whatOpens(std::size_t j) {
    if (!std::holds_alternative<Pivot>(first(j)) && !tieOf(first(j))) return std::nullopt;
    for (std::size_t k = m_groups.size(); k-- > 0;) {
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
    for (std::size_t j = 0; j < m_groups.size(); ++j)
      set(j, true);
    std::vector<std::size_t> shutIn;
    for (std::size_t k = 0; k < steps.size(); ++k)
      if (!comesUndone(steps[k].groups, leastOf(steps[k]))) shutIn.push_back(k);
    for (std::size_t k : shutIn) {
      for (std::size_t j = 0; j < m_groups.size(); ++j)
        set(j, false);
      for (std::size_t done = 0; done <= k; ++done)
        for (std::size_t j : steps[done].groups)
          set(j, true);
      for (std::size_t later = k + 1; later < steps.size(); ++later) {
        for (std::size_t j : steps[later].groups)
          set(j, true);
        if (comesUndone(steps[k].groups, leastOf(steps[k]))) continue;
        order.steps[k].before = static_cast<int>(later);
        break;
      }
    }
  }

  const Assembly& m_assembly;
  Access m_access;
  std::vector<JointGroup> m_groups;
  std::vector<char> m_made;
};

} // namespace

AssemblyOrder assemblyOrder(const Motion& motion, double shown_rad) {
  return Making(motion, shown_rad, groupsOf(motion.assembly())).run();
}

} // namespace hinge
