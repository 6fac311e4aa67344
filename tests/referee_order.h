// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"
#include <map>
#include <optional>
#include <vector>

namespace hinge::test {

/// Follows which of two sheets in one plane lies on the other, opening by opening: what joints and
/// folds say, what follows from that, what stays as it was while sheets lie on one another, and on
/// which side they came and go. Where two of these contradict one another paper passes through
/// paper. It goes by consequence alone and tries nothing out: an order that only a search can
/// refute is not its matter.
class OrderReferee {
public:
  struct Wrong {
    PanelIndex a, b;
    double depth_mm, at_rad;
  };
  OrderReferee(const Assembly& assembly, const Motion& motion);
  /// The next opening on the way.
  void next(const Pose& pose, double opening_rad);
  /// What a hand does at an opening, from rest.
  void byHand(const std::vector<Pose>& way, double opening_rad);
  const std::vector<Wrong>& wrong() const { return m_wrong; }

private:
  using Pair = std::pair<PanelIndex, PanelIndex>; ///< the lower number first
  using Sides = std::map<Pair, int>; ///< +1: the second lies on the face side of the first
  struct Moment {
    Pose pose;
    double at_rad = 0;
    std::map<Pair, std::vector<Vec2>> common; ///< of those in one plane, in the first's piece
    Sides sides;
  };

  Moment momentAt(const Pose& pose, double opening_rad, const Moment* before) const;
  void follow(std::optional<Moment>& before, Moment now);
  void arrive(const Moment& before, Moment& now);
  void leave(Moment& moment, const Moment& next);
  bool slidesOn(PanelIndex k, PanelIndex host) const;
  void glueOverGlue(Moment& moment);
  void joints(Moment& moment);
  void folds(Moment& moment);
  void risingFolds(Moment& moment);
  void straddled(const Moment& moment);
  void movers(Moment& moment);
  bool consequences(Moment& moment);
  void interleaved(Moment& moment);

  bool there(PanelIndex p, const Pose& pose) const;
  std::optional<int> sideAlong(const Moment& m, PanelIndex a, PanelIndex b, const Vec3& up) const;
  bool put(Moment& m, PanelIndex a, PanelIndex b, int side, const Vec3& up, double depth_mm);
  bool alike(Moment& m, PanelIndex k, PanelIndex a, PanelIndex b);
  bool liesAcross(const Moment& m, PanelIndex k, const Vec3& from, const Vec3& to,
                  double* least_mm = nullptr) const;
  bool inOnePlane(const Pose& pose, PanelIndex a, PanelIndex b) const;

  const Assembly& m_assembly;
  const Motion& m_motion;
  IndexedVector<PanelIndex, int> m_heldWith; ///< by glue
  std::optional<Moment> m_before;
  std::vector<Wrong> m_wrong;
};

} // namespace hinge::test
