// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/making/partly_built.h"
#include "core/contact/contact.h"
#include "core/states/lying.h"
#include <algorithm>
#include <queue>

namespace hinge {
namespace {

/// Deeper than that paper is in the way; less is a corner that bends.
constexpr double kPasses_mm = 1;

} // namespace

PartlyBuilt::PartlyBuilt(const Motion& motion, const MadeJoints& made, const std::vector<int>& rank)
    : m_motion(motion), m_rank(rank), m_held(heldBy(motion.assembly(), made)),
      m_ring(ringNumbers(m_held)), m_group(m_held.bodies.size(), -1),
      m_moves(m_held.bodies.size(), 0) {
  int next = 0;
  for (BodyIndex start : m_held.bodies.indices()) {
    std::vector<BodyIndex> open{start};
    while (!open.empty()) {
      const BodyIndex b = open.back();
      open.pop_back();
      int& group = m_group[static_cast<std::size_t>(b.value)];
      if (group >= 0) continue;
      group = next;
      for (PairIndex p : m_held.bodies[b].pairs)
        open.push_back(m_held.pairs[p].other(b));
    }
    ++next;
  }
  for (PanelIndex page : m_held.pages)
    m_moves[static_cast<std::size_t>(m_ring[number(page)])] = 1;
}

bool PartlyBuilt::together(PanelIndex a, PanelIndex b) const {
  return m_group[number(a)] == m_group[number(b)];
}

Pose PartlyBuilt::at(double opening_rad) const {
  if (opening_rad <= 0 && m_motion.shuts()) return m_motion.shutPose();
  return m_motion.poseAt(std::max(opening_rad, m_motion.low_rad()));
}

Iso3 PartlyBuilt::bodyPose(BodyIndex body, const Pose& pose) const {
  const PanelIndex first = m_held.bodies[body].panels.front();
  return pose.panels[first] * inverseOf(m_held.inBody[first]);
}

void PartlyBuilt::put(BodyIndex body, const Iso3& at, Pose& pose) const {
  for (PanelIndex p : m_held.bodies[body].panels) {
    pose.panels[p] = at * m_held.inBody[p];
    pose.placed[p] = 1;
  }
}

/// Rings without a page, and single panels, as they lie on what they hang on in the shut card.
void PartlyBuilt::layFlat(Pose& pose, const Pose& whole, const Pose& shut,
                          LayerOffsets& off) const {
  const PanelIndex root = m_motion.assembly().root;
  std::vector<PanelIndex> base(m_held.bodies.size()); // the panel on which all that hangs lies
  std::queue<BodyIndex> open;
  const auto baseOf = [&](BodyIndex b) -> PanelIndex& {
    return base[static_cast<std::size_t>(b.value)];
  };
  const auto rankOf = [&](PanelIndex p) { return m_rank[static_cast<std::size_t>(p.value)]; };
  // From the first page up to the last, in the shut card.
  const Vec3 up = shut.panels[root].linear().col(2);
  open.push(m_held.bodyOf[root]);
  baseOf(open.front()) = root;
  put(open.front(), bodyPose(open.front(), whole), pose);
  while (!open.empty()) {
    const BodyIndex from = open.front();
    open.pop();
    for (PairIndex p : m_held.bodies[from].pairs) {
      const BodyIndex to = m_held.pairs[p].other(from);
      if (baseOf(to).valid()) continue;
      open.push(to);
      if (m_moves[static_cast<std::size_t>(m_ring[static_cast<std::size_t>(to.value)])]) {
        baseOf(to) = pageIn(to);
        put(to, bodyPose(to, whole), pose);
        continue;
      }
      baseOf(to) = baseOf(from);
      put(to, bodyPose(from, pose) * inverseOf(bodyPose(from, shut)) * bodyPose(to, shut), pose);
      if (m_rank.empty()) continue;
      const PanelIndex on = baseOf(to);
      const Vec3 way = pose.panels[on].linear() * (shut.panels[on].linear().transpose() * up);
      for (PanelIndex panel : m_held.bodies[to].panels)
        off[panel] = Lying::kStep_mm * (rankOf(panel) - rankOf(on)) * way;
    }
  }
}

/// A page of the base that is part of a body; another panel when there is none.
PanelIndex PartlyBuilt::pageIn(BodyIndex body) const {
  const auto& panels = m_held.bodies[body].panels;
  const auto page = std::ranges::find_if(
      panels, [&](PanelIndex p) { return m_motion.assembly().panels[p].use == PanelUse::Page; });
  return page != panels.end() ? *page : panels.front();
}

bool PartlyBuilt::passesThrough(const Pose& pose) const {
  const Assembly& assembly = m_motion.assembly();
  std::vector<std::vector<std::vector<Vec3>>> parts(assembly.panels.size());
  for (PanelIndex p : assembly.panels.indices())
    if (pose.placed[p])
      for (const Polygon& part : convexParts(assembly.panels[p].outline)) {
        auto& corners = parts[static_cast<std::size_t>(p.value)].emplace_back();
        for (const Vec2& corner : part)
          corners.push_back(pose.panels[p] * lift(corner));
      }
  const auto moves = [&](PanelIndex p) {
    return m_moves[static_cast<std::size_t>(m_ring[number(p)])] != 0;
  };
  for (PanelIndex a : assembly.panels.indices())
    for (PanelIndex b : assembly.panels.indices()) {
      if (!pose.placed[a] || !pose.placed[b] || moves(a) || !moves(b)) continue;
      if (crossingDepth(parts[static_cast<std::size_t>(a.value)],
                        parts[static_cast<std::size_t>(b.value)]) > kPasses_mm)
        return true;
    }
  return false;
}

Pose PartlyBuilt::poseAt(double opening_rad, Hanging how, PanelIndex anchor,
                         LayerOffsets& off) const {
  const Pose whole = at(opening_rad);
  const auto nothing = [&] { off.assign(whole.placed.size(), Vec3::Zero()); };
  nothing();
  const auto kept = [&](Pose pose) {
    for (PanelIndex p : m_motion.assembly().panels.indices())
      pose.placed[p] = pose.placed[p] && whole.placed[p] && together(p, anchor);
    return pose;
  };
  if (how == Hanging::Standing || !onCard(anchor)) return kept(whole);
  const Pose shut = at(0);
  Pose flat = whole;
  flat.placed.assign(whole.placed.size(), 0);
  layFlat(flat, whole, shut, off);
  for (PanelIndex p : m_motion.assembly().panels.indices())
    flat.placed[p] = flat.placed[p] && shut.placed[p];
  flat = kept(std::move(flat));
  if (!passesThrough(flat)) return flat;
  nothing();
  return kept(whole);
}

std::optional<PartlyBuilt::Swing> PartlyBuilt::swingOf(PanelIndex panel, PanelIndex other) const {
  const BodyIndex start = m_held.bodyOf[panel], goal = m_held.bodyOf[other];
  // The way back from the other panel, body by body.
  std::vector<PairIndex> by(m_held.bodies.size());
  std::vector<char> seen(m_held.bodies.size(), 0);
  std::queue<BodyIndex> open;
  open.push(goal);
  seen[static_cast<std::size_t>(goal.value)] = 1;
  while (!open.empty()) {
    const BodyIndex b = open.front();
    open.pop();
    for (PairIndex p : m_held.bodies[b].pairs) {
      const BodyIndex next = m_held.pairs[p].other(b);
      if (std::exchange(seen[static_cast<std::size_t>(next.value)], 1)) continue;
      by[static_cast<std::size_t>(next.value)] = p;
      open.push(next);
    }
  }
  const auto ringOf = [&](BodyIndex b) { return m_ring[static_cast<std::size_t>(b.value)]; };
  if (!seen[static_cast<std::size_t>(start.value)]) return std::nullopt;
  for (BodyIndex b = start; b != goal;) {
    const Pair& pair = m_held.pairs[by[static_cast<std::size_t>(b.value)]];
    const BodyIndex next = pair.other(b);
    if (ringOf(b) != ringOf(next) && pair.fold.valid()) {
      Swing swing;
      std::vector<BodyIndex> beyond{b};
      std::vector<char> taken(m_held.bodies.size(), 0);
      taken[static_cast<std::size_t>(next.value)] = taken[static_cast<std::size_t>(b.value)] = 1;
      for (std::size_t k = 0; k < beyond.size(); ++k) {
        const Body& body = m_held.bodies[beyond[k]];
        swing.panels.insert(swing.panels.end(), body.panels.begin(), body.panels.end());
        for (PairIndex p : body.pairs)
          if (const BodyIndex far = m_held.pairs[p].other(beyond[k]);
              !std::exchange(taken[static_cast<std::size_t>(far.value)], 1))
            beyond.push_back(far);
      }
      const Fold& fold = m_motion.assembly().folds[pair.fold];
      swing.from = m_held.bodyOf[fold.left] == b ? fold.right : fold.left;
      swing.origin = lift(fold.from);
      swing.axis = lift((fold.to - fold.from).normalized());
      return swing;
    }
    b = next;
  }
  return std::nullopt;
}

} // namespace hinge
