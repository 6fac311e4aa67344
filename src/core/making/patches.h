// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/mechanism.h"

namespace hinge {

/// Where one panel lies glued on a side of another: a part of that side which nothing else can be
/// glued to any more. Every glue makes two, one on each of its panels.
struct Patch {
  JointIndex glue;
  PanelIndex panel, other; ///< the panel whose side is covered, and what covers it
  bool onFace = true;      ///< which side of `panel`
  Region outline;          ///< of `other`, in the flat frame of `panel`, counter-clockwise
  Box2 box;
};

/// The line on which paper stands up from a patch: a fold between the glued panel and one that
/// moves. What is to lie on that side of the paper cannot lie over it.
struct Foot {
  std::size_t patch = 0; ///< the patch whose `other` is glued down
  PanelIndex wall;       ///< what stands there
  Vec2 from, to;         ///< in the flat frame of the patch's panel
};

/// A foot that another patch on the same side of the paper lies over; not of two tabs.
struct CoveredFoot {
  std::size_t foot = 0, by = 0; ///< indices of a foot and of a patch
  double length_mm = 0;         ///< of the part that is covered
};

/// All patches of an assembly, the feet in them, and which lie over which. Cost: a sort by sides of
/// paper, then the pairs of patches that really meet.
class Patches {
public:
  Patches(const Assembly& assembly, const Mechanism& mechanism);

  const std::vector<Patch>& all() const { return m_patches; }
  const std::vector<Foot>& feet() const { return m_feet; }
  const std::vector<CoveredFoot>& coveredFeet() const { return m_covered; }
  /// The two patches of a glue: on its host, and on its tab.
  std::size_t onHost(JointIndex glue) const { return m_onHost[glue]; }
  std::size_t onTab(JointIndex glue) const { return m_onHost[glue] + 1; }
  /// Patches on the same side of the same panel whose boxes overlap the patch's own.
  const std::vector<std::size_t>& beside(std::size_t patch) const { return m_beside[patch]; }
  /// Patches on a panel, both sides.
  const std::vector<std::size_t>& on(PanelIndex panel) const { return m_on[panel]; }

private:
  void findNeighbours();
  void findFeet(const Assembly& assembly, const Mechanism& mechanism);

  std::vector<Patch> m_patches;
  std::vector<std::vector<std::size_t>> m_beside;
  IndexedVector<JointIndex, std::size_t> m_onHost; ///< of glues
  IndexedVector<PanelIndex, std::vector<std::size_t>> m_on;
  std::vector<Foot> m_feet;
  std::vector<CoveredFoot> m_covered;
};

} // namespace hinge
