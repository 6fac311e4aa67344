#include "core/making/order.h"
#include "core/making/access.h"
#include "core/structures/names.h"
#include <algorithm>
#include <cctype>
#include <fmt/format.h>

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
  return kind == HingeKind::Slot ? JoinKind::Slot : kind == HingeKind::Pivot ? JoinKind::Pivot : JoinKind::Slide;
}

/// All joints in the order of the design, hosts before guests.
std::vector<Join> joinsOf(const Assembly& a) {
  std::vector<Join> all;
  for (std::size_t k = 0; k < a.glues.size(); ++k) all.push_back({JoinKind::Glue, a.panels[a.glues[k].tab].owner, a.glues[k].host, a.glues[k].tab, {k}});
  for (HingeIndex h : a.hinges.indices()) {
    const Hinge& hinge = a.hinges[h];
    const auto same = std::ranges::find_if(all, [&](const Join& j) {
      return hinge.kind == HingeKind::Slot && j.kind == JoinKind::Slot && a.panels[j.first].piece == a.panels[hinge.first].piece && a.panels[j.second].piece == a.panels[hinge.second].piece;
    });
    if (same != all.end()) same->hinges.push_back(h);
    else all.push_back({kindOf(hinge.kind), hinge.owner, hinge.first, hinge.second, {}, {}, {h}});
  }
  for (std::size_t k = 0; k < a.links.size(); ++k) all.push_back({JoinKind::Band, a.links[k].owner, a.links[k].panels[0], a.links[k].panels[1], {}, {k}});
  std::ranges::stable_sort(all, {}, [&](const Join& j) { return j.owner ? j.owner->value : -1; });
  return all;
}

/// What is joined so far.
class Making {
public:
  Making(const Motion& motion, double shown_rad, std::vector<Join> joins) : m_motion(motion), m_shown_rad(shown_rad), m_joins(std::move(joins)), m_made(m_joins.size(), 1) {}

  AssemblyOrder run() {
    AssemblyOrder order;
    std::vector<std::vector<std::size_t>> undone;
    while (auto next = findNext()) {
      for (std::size_t j : *next) m_made[j] = 0;
      undone.push_back(std::move(*next));
    }
    for (std::size_t j = 0; j < m_joins.size(); ++j)
      if (m_made[j]) order.unreachable.push_back(m_joins[j]);
    const bool whole = order.unreachable.empty();
    std::ranges::reverse(undone);
    for (const auto& step : undone) {
      JoinStep made;
      for (std::size_t j : step) made.joins.push_back(m_joins[j]);
      order.steps.push_back(std::move(made));
    }
    if (whole) findWhatComesBefore(undone, order);
    return order;
  }

private:
  using Step = std::vector<std::size_t>;

  bool comesUndone(const Step& step, const std::vector<char>& made) const {
    std::vector<char> rest = made;
    std::vector<const Join*> joins;
    for (std::size_t j : step) rest[j] = 0, joins.push_back(&m_joins[j]);
    std::vector<const Join*> left;
    for (std::size_t j = 0; j < m_joins.size(); ++j)
      if (rest[j]) left.push_back(&m_joins[j]);
    return Access(m_motion, m_shown_rad, left).reaches(joins);
  }

  /// The last joint that comes undone by itself, or else the last ones that do so together.
  std::optional<Step> findNext() const {
    for (std::size_t j = m_joins.size(); j-- > 0;) {
      if (!m_made[j]) continue;
      if (comesUndone({j}, m_made)) return Step{j};
      if (const auto opens = whatOpens(j)) return Step{*opens};
    }
    const auto pieceOf = [&](PanelIndex p) { return m_motion.assembly().panels[p].piece; };
    for (bool anyHost : {false, true})
      for (std::size_t j = m_joins.size(); j-- > 0;) {
        if (!m_made[j]) continue;
        Step together;
        for (std::size_t k = 0; k < m_joins.size(); ++k) {
          const bool mine = pieceOf(m_joins[k].second) == pieceOf(m_joins[j].second);
          if (m_made[k] && mine && (anyHost || pieceOf(m_joins[k].first) == pieceOf(m_joins[j].first))) together.push_back(k);
        }
        if (together.size() > 1 && comesUndone(together, m_made)) return together;
      }
    return std::nullopt;
  }

  /// A pin or band wants one side open rather than several: the joint that lets the hand in by itself.
  std::optional<std::size_t> whatOpens(std::size_t j) const {
    if (m_joins[j].kind != JoinKind::Pivot && m_joins[j].kind != JoinKind::Band) return std::nullopt;
    std::vector<char> without = m_made;
    for (std::size_t k = m_joins.size(); k-- > 0;) {
      if (!m_made[k] || k == j) continue;
      without[k] = 0;
      if (comesUndone({j}, without) && comesUndone({k}, m_made)) return k;
      without[k] = 1;
    }
    return std::nullopt;
  }

  /// A step that is out of reach in the finished card: after which one is it so? Steps of the same piece are looked at only when no
  /// other alone is to blame.
  void findWhatComesBefore(const std::vector<Step>& steps, AssemblyOrder& order) const {
    std::vector<char> made(m_joins.size(), 0);
    for (std::size_t k = 0; k < steps.size(); ++k) {
      for (std::size_t j : steps[k]) made[j] = 1;
      const std::vector<char> all(m_joins.size(), 1);
      if (comesUndone(steps[k], all)) continue;
      std::vector<char> upTo = made;
      for (std::size_t later = k + 1; later < steps.size(); ++later) {
        for (std::size_t j : steps[later]) upTo[j] = 1;
        if (comesUndone(steps[k], upTo)) continue;
        order.steps[k].before = static_cast<int>(later);
        break;
      }
    }
  }

  const Motion& m_motion;
  double m_shown_rad;
  std::vector<Join> m_joins;
  std::vector<char> m_made;
};

} // namespace

AssemblyOrder assemblyOrder(const Motion& motion, double shown_rad) { return Making(motion, shown_rad, joinsOf(motion.assembly())).run(); }

std::string describe(const Join& join, const Design& design, const Assembly& assembly) {
  // A piece of one panel is called by its own name.
  const auto nameIn = [&](PanelIndex p) {
    const Panel& panel = assembly.panels[p];
    return panel.owner && assembly.pieces[panel.piece].panels.size() == 1 ? nameOf(design, *panel.owner) : panelName(design, panel.key);
  };
  const std::string first = nameIn(join.first), second = nameIn(join.second);
  switch (join.kind) {
  case JoinKind::Glue: return fmt::format("glue {} to {}", second, first);
  case JoinKind::Slot: return join.hinges.size() > 1 ? fmt::format("push the {} slots of {} and {} together", join.hinges.size(), second, first) : fmt::format("push the slots of {} and {} together", second, first);
  case JoinKind::Pivot: return fmt::format("pin {} to {}", second, first);
  case JoinKind::Slide: return fmt::format("lay {} on {} so that it slides", second, first);
  case JoinKind::Band: return fmt::format("fasten the {} from {} to {}", assembly.links[join.links.front()].elastic ? "band" : "film", first, second);
  }
  return "";
}

std::vector<std::string> describe(const AssemblyOrder& order, const Design& design, const Assembly& assembly) {
  const auto sentence = [](std::string text) {
    text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(text[0])));
    return text;
  };
  std::vector<std::string> all;
  for (const JoinStep& step : order.steps) {
    std::string text;
    for (const Join& join : step.joins) text += (text.empty() ? "" : ", and with it ") + describe(join, design, assembly);
    if (step.before >= 0) text += fmt::format(", before step {} shuts it in", step.before + 1);
    all.push_back(sentence(std::move(text)));
  }
  for (const Join& join : order.unreachable) all.push_back(sentence(fmt::format("{}: out of reach in any order", describe(join, design, assembly))));
  return all;
}

} // namespace hinge
