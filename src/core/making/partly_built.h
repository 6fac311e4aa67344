// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/held.h"

namespace hinge {

/// How what is held on one side only lies on the rest.
enum class Hanging {
  Flat,    ///< folded flat, as in the shut card
  Standing ///< as it stands in the finished card at that opening
};

/// Where panels are that are in one plane, for pictures: how far each is to be moved off its pose,
/// in the world. Zero: as other joints say (see Lying).
using LayerOffsets = IndexedVector<PanelIndex, Vec3>;

/// The card while some joints are made and others are not: what holds together, and where it is.
/// Poses come from the motion of the finished card: what is in a ring with the pages moves with
/// them as it always will, and what hangs on one hinge alone may be turned about it, so every pose
/// is one of paper that is rigid and joined.
class PartlyBuilt {
public:
  /// Both must outlive it. `rank`: the place of each panel in the stack of the shut card, from the
  /// first page up; empty when there is none.
  PartlyBuilt(const Motion& motion, const MadeJoints& made, const std::vector<int>& rank);

  bool together(PanelIndex a, PanelIndex b) const;
  bool onCard(PanelIndex panel) const { return together(panel, m_motion.assembly().root); }

  /// What holds together with a panel, in the world; nothing else is placed. What is not on the
  /// card is as in the finished one at that opening. Flat gives way to standing when what lies flat
  /// would pass through what stands already. `off` gets the order in which it lies.
  Pose poseAt(double opening_rad, Hanging how, PanelIndex anchor, LayerOffsets& off) const;

  /// A part that swings on one fold.
  struct Swing {
    std::vector<PanelIndex> panels;
    PanelIndex from; ///< the panel on which it swings, and the fold's line in the frame of its
                     ///< piece
    Vec3 origin, axis;
  };
  /// How a panel swings away from another one that it holds together with: the nearest hinge on
  /// the way between them that is in no ring, with all that hangs beyond it. Nothing when both are
  /// in the same ring.
  std::optional<Swing> swingOf(PanelIndex panel, PanelIndex other) const;

private:
  Pose at(double opening_rad) const; ///< of the finished card; shut when it is that
  Iso3 bodyPose(BodyIndex body, const Pose& pose) const;
  void put(BodyIndex body, const Iso3& at, Pose& pose) const;
  void layFlat(Pose& pose, const Pose& whole, const Pose& shut, LayerOffsets& off) const;
  PanelIndex pageIn(BodyIndex body) const;
  bool passesThrough(const Pose& pose) const;
  std::size_t number(PanelIndex p) const {
    return static_cast<std::size_t>(m_held.bodyOf[p].value);
  }

  const Motion& m_motion;
  const std::vector<int>& m_rank;
  Mechanism m_held;
  std::vector<int> m_ring, m_group; ///< per body: its ring; what it holds together with
  std::vector<char> m_moves;        ///< per ring: has a page in it, which goes with the opening
};

} // namespace hinge
