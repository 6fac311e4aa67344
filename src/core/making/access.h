#pragma once
#include "core/making/order.h"

namespace hinge {

/// What a hand can do while some joints are made and the others are not yet.
class Access {
public:
  Access(const Motion& motion, double shown_rad, const std::vector<const Join*>& made);
  /// True when these joints, none of which is made, can be made now, all in one go.
  bool reaches(const std::vector<const Join*>& joins) const;

private:
  bool reaches(const Join& join) const;
  /// No hinge between them that is in no ring, but a way over hinges: both are held in the same ring or chain of rings.
  bool heldTogether(PanelIndex a, PanelIndex b) const;
  bool partsFrom(PanelIndex tab, PanelIndex host) const;          ///< away from one another, out of their plane
  bool slidesApart(const Hinge& slot) const;                      ///< along the line of the slot
  bool pinHasRoom(const Hinge& pivot) const;
  bool endHasRoom(PanelIndex panel, const Vec2& at, PanelIndex other, const Vec2& otherAt) const;
  bool slotsRunAlike(const std::vector<HingeIndex>& slots) const;
  /// Room for something of this thickness from a point to the outside, about a direction; walls are what the joints hold together
  /// with one of `joined`.
  bool room(const Pose& pose, const std::vector<PanelIndex>& joined, const Vec3& at, const Vec3& outwards, double radius_mm, const std::vector<PanelIndex>& ignore) const;
  /// Something glued, pinned or sliding lies over the point on that side.
  bool covered(PanelIndex panel, const Vec2& at, bool onFace, PanelIndex except) const;
  bool glueGetsIn(const Glue& glue) const; ///< part of the place on the host is open
  /// Twists (6 rows a body, rotation first, lengths in kUnit_mm) that the joints within the ring of a panel leave free.
  Eigen::MatrixXd freeTwists(PanelIndex panel, std::vector<int>& place) const;

  /// A panel that hangs on one fold and on nothing that is made: it swings away, whatever else is held.
  bool isFlap(PanelIndex panel) const;

  /// What the made joints hold together; built when something asks for it, which flaps do not.
  struct Held {
    Mechanism mechanism;
    std::vector<int> ring; ///< per body: bodies connected without a hinge that is in no ring share a number
  };
  const Held& held() const;

  const Motion& m_motion;
  const Assembly& m_whole;
  double m_shown_rad; ///< opening at which bands are tied
  std::vector<Glue> m_glues; ///< the made ones
  IndexedVector<HingeIndex, Hinge> m_hinges;
  mutable std::optional<Held> m_held;
};

} // namespace hinge
