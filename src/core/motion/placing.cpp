// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/placing.h"
#include "core/motion/assembler.h"
#include <algorithm>

namespace hinge {
namespace {

/// Poses of the bodies of a neighbouring design, found by the keys of their panels.
struct Neighbour {
  BodyPoses poses;
  std::vector<char> known; ///< per body

  Neighbour(const Motion* near, const Assembly& assembly, const Mechanism& m, double opening_rad)
      : known(m.bodies.size(), 0) {
    poses.assign(m.bodies.size(), Iso3::Identity());
    if (!near) return;
    const Pose pose = near->poseAt(opening_rad);
    for (PanelIndex p : assembly.panels.indices()) {
      const PanelIndex there = near->assembly().findPanel(assembly.panels[p].key);
      const auto body = static_cast<std::size_t>(m.bodyOf[p].value);
      if (known[body] || !there.valid() || !pose.placed[there]) continue;
      poses[m.bodyOf[p]] = pose.panels[there] * inverseOf(m.inBody[p]);
      known[body] = 1;
    }
  }
  bool knows(const std::vector<BodyIndex>& bodies) const {
    return std::ranges::all_of(
        bodies, [&](BodyIndex b) { return known[static_cast<std::size_t>(b.value)] != 0; });
  }
};

/// Puts the placements in their order into the world; hosts stand before guests.
class Placing {
public:
  Placing(const Assembly& assembly, const Mechanism& mechanism, double opening_rad, int tries,
          const Motion* near)
      : m_assembly(assembly), m(mechanism), m_neighbour(near, assembly, mechanism, opening_rad),
        m_near(near != nullptr), m_tries(tries), m_known(mechanism.bodies.size(), 0),
        m_missing(mechanism.bodies.size(), 0) {
    m_poses.assign(m.bodies.size(), Iso3::Identity());
    m.placeBase(assembly, opening_rad, m_poses);
    for (PanelIndex page : m.pages)
      m_known[at(m.bodyOf[page])] = 1;
  }

  void run() {
    for (const Placement& placement : m_assembly.placements) {
      if (placement.poses)
        byClosedForm(placement);
      else
        together(placement);
    }
  }
  BodyPoses& poses() { return m_poses; }
  std::vector<char>& missing() { return m_missing; }

private:
  /// What has been put together: bodies whose motions the later ones may still decide.
  struct Group {
    std::vector<BodyIndex> bodies;
    int freedoms = 0;
  };

  static std::size_t at(BodyIndex b) { return static_cast<std::size_t>(b.value); }
  bool hostsStand(const Placement& placement) const {
    return std::ranges::none_of(placement.seat.sides, [&](const SeatSide& side) {
      return m_missing[at(m.bodyOf[side.panel])] != 0;
    });
  }

  void byClosedForm(const Placement& placement) {
    const PanelIndex first = placement.seat.sides[0].panel, second = placement.seat.sides[1].panel;
    std::optional<std::vector<Iso3>> found;
    if (hostsStand(placement))
      found = placement.poses(m_poses[m.bodyOf[first]] * m.inBody[first],
                              m_poses[m.bodyOf[second]] * m.inBody[second]);
    for (std::size_t k = 0; k < placement.panels.size(); ++k) {
      const PanelIndex panel = placement.panels[k];
      const BodyIndex body = m.bodyOf[panel];
      (found ? m_known : m_missing)[at(body)] = 1;
      if (found) m_poses[body] = (*found)[k] * inverseOf(m.inBody[panel]);
    }
  }

  void together(const Placement& placement) {
    Group own;
    for (PanelIndex panel : placement.panels)
      if (const BodyIndex body = m.bodyOf[panel];
          !m_known[at(body)] && std::ranges::find(own.bodies, body) == own.bodies.end())
        own.bodies.push_back(body);
    bool placed = hostsStand(placement);
    if (placed) {
      if (const auto freedoms = solved(own.bodies, m_known))
        own.freedoms = *freedoms;
      else
        placed = withHosts(own);
    }
    for (BodyIndex b : own.bodies)
      (placed ? m_known : m_missing)[at(b)] = 1;
    if (placed) m_groups.push_back(std::move(own));
  }

  std::optional<int> solved(const std::vector<BodyIndex>& bodies, const std::vector<char>& known) {
    const bool start = m_near && m_neighbour.knows(bodies);
    return putTogether(m, m_assembly, bodies, known, m_poses, m_tries,
                       start ? &m_neighbour.poses : nullptr);
  }

  bool isBeside(const Group& group, const std::vector<BodyIndex>& bodies) const {
    return std::ranges::any_of(bodies, [&](BodyIndex b) {
      return std::ranges::any_of(m.bodies[b].pairs, [&](PairIndex j) {
        return std::ranges::find(group.bodies, m.pairs[j].other(b)) != group.bodies.end();
      });
    });
  }

  /// Bodies with joints to others that are still free to move are put together once more with
  /// these.
  bool withHosts(Group& own) {
    std::vector<char> before = m_known;
    Group all = own;
    std::vector<std::size_t> taken;
    for (std::size_t g = 0; g < m_groups.size(); ++g) {
      if (m_groups[g].freedoms == 0 || !isBeside(m_groups[g], own.bodies)) continue;
      taken.push_back(g);
      for (BodyIndex b : m_groups[g].bodies)
        all.bodies.push_back(b), before[at(b)] = 0;
    }
    if (taken.empty()) return false;
    const auto freedoms = solved(all.bodies, before);
    if (!freedoms) return false;
    for (auto it = taken.rbegin(); it != taken.rend(); ++it)
      m_groups.erase(m_groups.begin() + static_cast<std::ptrdiff_t>(*it));
    own.bodies = std::move(all.bodies), own.freedoms = *freedoms;
    return true;
  }

  const Assembly& m_assembly;
  const Mechanism& m;
  const Neighbour m_neighbour;
  const bool m_near;
  const int m_tries;
  BodyPoses m_poses;
  std::vector<char> m_known, m_missing;
  std::vector<Group> m_groups;
};

} // namespace

BodyPoses placeAll(const Assembly& assembly, const Mechanism& mechanism, double opening_rad,
                   std::vector<char>& missing, int tries, const Motion* near) {
  Placing placing(assembly, mechanism, opening_rad, tries, near);
  placing.run();
  missing = std::move(placing.missing());
  return std::move(placing.poses());
}

} // namespace hinge
