// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"
#include "core/states/order_solver.h"
#include <map>
#include <memory>
#include <set>
#include <stop_token>

namespace hinge {

/// Paper that is farther than this (mm) from a plane does not lie in it.
constexpr double kInPlane_mm = 0.02;
/// Paper reaches past a line when it does so by this much (mm) on both sides, and folds lie on one
/// line when they have more than this of it in common.
constexpr double kPast_mm = 0.5;

using PanelPair = std::pair<PanelIndex, PanelIndex>; ///< the lower number first
inline PanelPair ordered(PanelIndex a, PanelIndex b) {
  return a < b ? PanelPair{a, b} : PanelPair{b, a};
}

/// Two panels that lie on one another at a moment.
struct OnOneAnother {
  int statement = 0;          ///< that the second lies on the face of the first
  std::vector<Region> common; ///< in the flat frame of the first
  double area_mm2 = 0;
  double width_mm() const; ///< about how wide that is
};

/// One opening, or a place on the way of a hand, with all that lies on one another there.
struct SheetMoment {
  Pose pose;
  int before = -1; ///< the moment from which it is reached; -1: the first
  int hand = 0;    ///< number of the lift whose way it is on, from 1; 0: the card's own way
  std::map<PanelPair, std::shared_ptr<const OnOneAnother>> lying;
  std::map<PanelIndex, std::vector<PanelIndex>> beside; ///< what each lies on, or under

  Vec3 upOf(PanelIndex panel) const { return pose.panels[panel].linear().col(2); }
  const OnOneAnother* lyingOf(PanelIndex a, PanelIndex b) const;
  /// "b lies above a" in a direction.
  OrderSolver::Literal above(PanelIndex a, PanelIndex b, const Vec3& up) const;
  /// The middle of what two have in common.
  Vec3 middleOf(PanelIndex a, PanelIndex b) const;
};

/// Which panels lie on one another, and when: over the card's own way and on the ways of hands.
/// Every pair gets one statement for as long as it lies so.
class SheetsInPlane {
public:
  /// All must outlive it. `only`: when not empty, only pairs with a panel of one of these.
  SheetsInPlane(const Motion& motion, OrderSolver& solver, std::vector<StructureId> only,
                std::stop_token stop);

  /// The card's own way; nothing at the exact ends.
  void addOwnWay();
  /// Everything that hands lift, spin or pull, from `shown_rad` on.
  void addHands(double shown_rad);

  const Motion& motion() const { return m_motion; }
  const Assembly& assembly() const { return m_assembly; }
  const std::vector<SheetMoment>& moments() const { return m_moments; }
  /// By the number of a hand, from 1.
  const std::vector<const Lift*>& lifts() const { return m_liftOfHand; }

  /// Glue, held folds and paper that comes made keep them together.
  bool together(PanelIndex a, PanelIndex b) const { return m_group[a] == m_group[b]; }
  bool isSlotted(PanelIndex a, PanelIndex b) const { return m_slotted.contains(ordered(a, b)); }
  bool isThere(PanelIndex p, const Pose& pose) const {
    return pose.placed[p] && !m_motion.isLoose(p);
  }
  bool isWanted(PanelIndex p) const;
  bool areInPlane(const Pose& pose, PanelIndex a, PanelIndex b) const;
  /// How far a panel has paper past a line on its lesser side; 0: it ends there, or beside it.
  double reachesPast(const SheetMoment& m, PanelIndex k, const Vec3& from, const Vec3& to) const;

private:
  void gatherGroups();
  std::vector<double> openings() const;
  void addMoment(Pose pose, int before, int hand);
  std::vector<PanelPair> pairsInPlane(const Pose& pose) const;
  std::shared_ptr<const OnOneAnother> lyingAt(const SheetMoment& now, const PanelPair& pair);

  const Motion& m_motion;
  const Assembly& m_assembly;
  OrderSolver& m_solver;
  std::vector<StructureId> m_only;
  std::stop_token m_stop;
  IndexedVector<PanelIndex, int> m_group;
  std::set<PanelPair> m_slotted;
  std::vector<SheetMoment> m_moments;
  std::vector<const Lift*> m_liftOfHand;
  int m_last = -1; ///< moment of the card's own way
};

} // namespace hinge
