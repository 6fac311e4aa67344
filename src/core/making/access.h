// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/making/held.h"
#include "core/making/order.h"
#include "core/making/patches.h"
#include "core/making/walls.h"
#include <array>
#include <map>

namespace hinge {

/// What a hand can do while some joints are made and the others are not yet. Joints are made and
/// taken back one by one; what that changes is worked out only when something asks for it.
class Access {
public:
  Access(const Motion& motion, double shown_rad);

  void set(const JointGroup& group, bool made);

  /// How a glued joint is pressed together: with room for the hand all round, by a finger that gets
  /// there in some way, or by shutting the card on it, which needs no room but a page that comes
  /// down on it.
  enum class Press { Openly, ByFinger, ByShutting };

  /// True when these joints, none of which is made, can be made now, all in one go.
  bool reaches(const std::vector<const JointGroup*>& groups, Press press = Press::ByFinger) const;

private:
  bool reaches(JointIndex joint, Press press) const;
  /// No hinge between them that is in no ring, but a way over hinges: both are held in the same
  /// ring or chain of rings.
  bool heldTogether(PanelIndex a, PanelIndex b) const;
  bool heldWithAny(PanelIndex panel, const std::vector<PanelIndex>& joined) const;
  /// Away from one another, out of their plane.
  bool partsFrom(PanelIndex tab, PanelIndex host) const;
  bool slidesApart(const Slot& slot) const; ///< along the line of the slot
  bool slotsRunAlike(const std::vector<const Slot*>& slots) const;
  bool pinHasRoom(const Pivot& pivot) const;
  bool endHasRoom(PanelIndex panel, const Vec2& at, PanelIndex other, const Vec2& otherAt) const;
  /// Something glued, pinned or sliding lies over the point on that side.
  bool covered(PanelIndex panel, const Vec2& at, bool onFace, PanelIndex except) const;
  bool glueGetsIn(JointIndex glue) const;  ///< part of the place is open on both panels
  bool standsClear(JointIndex glue) const; ///< no made foot rises through what is to be glued on
  bool fingerGetsTo(JointIndex glue, Press press) const; ///< room to press the joint
  bool shutsOn(JointIndex glue) const; ///< it lies on a page, with nothing between
  /// A panel that hangs on one fold and on nothing that is made: it swings away, whatever else is
  /// held.
  bool isFlap(PanelIndex panel) const;
  /// Twists (6 rows a body, rotation first, lengths in kUnit_mm) that the joints within the ring of
  /// a panel leave free.
  Eigen::MatrixXd freeTwists(PanelIndex panel, std::vector<int>& place) const;
  /// How one panel may move against another one of the same ring: a column for each free twist.
  Eigen::MatrixXd freeAgainst(PanelIndex panel, PanelIndex other) const;

  /// What the made joints hold together; built when something asks for it, which flaps do not.
  struct Held {
    Mechanism mechanism;
    std::vector<int> ring; ///< per body: bodies connected without a hinge in no ring share a number
  };
  const Held& held() const;
  const Walls& wallsAt(double opening_rad) const;

  const Motion& m_motion;
  const Assembly& m_whole;
  double m_shown_rad; ///< opening at which bands are tied
  bool m_guided;      ///< something turns on a pin or slides somewhere
  Patches m_patches;
  MadeJoints m_made;
  IndexedVector<PanelIndex, int> m_madeOn; ///< made glues and hinges at a panel
  mutable std::optional<Held> m_held;
  mutable std::map<double, Walls> m_walls;
  /// By press and glue: whether a finger gets there in the finished card; -1 not looked at, else
  /// 0, 1.
  mutable std::array<IndexedVector<JointIndex, signed char>, 2> m_openInFinished;
};

} // namespace hinge
