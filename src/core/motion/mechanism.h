// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"

namespace hinge {

using BodyIndex = Index<struct BodyTag>;
using PairIndex = Index<struct PairTag>;

/// Panels that are glued to one another and move as one.
struct Body {
  std::vector<PanelIndex> panels;
  std::vector<PairIndex> pairs;
};

/// A kinematic pair: a fold, slot, pivot or slide between two bodies. With fold angle rho the right
/// body is at
/// left * rotation(left line, -rho) * home; `home` is its place when the piece is flat. A slide
/// runs along the line instead, by kSlideScale_mm for every unit of its unknown, so that its column
/// of the Jacobian is as long as that of a fold.
struct Pair {
  FoldIndex fold; ///< one of the two is valid
  JointIndex joint;
  bool slides = false;
  bool restsAnywhere = false; ///< a pivot or slide: not bound to lie flat either way when shut
  BodyIndex left, right;
  Vec3 leftFrom, leftTo, leftAxis; ///< the fold's ends and unit direction in the left body's frame
  Vec3 rightFrom, rightTo;         ///< the same ends in the right body's frame
  Iso3 home, homeInverse;
  static constexpr double kSlideScale_mm = 100;
  BodyIndex other(BodyIndex body) const { return body == left ? right : left; }
};

/// Bodies and kinematic pairs of an assembly: what the motion engine works on. A body's frame is
/// the piece frame of its first panel.
struct Mechanism {
  IndexedVector<BodyIndex, Body> bodies;
  IndexedVector<PairIndex, Pair> pairs;
  IndexedVector<PanelIndex, BodyIndex> bodyOf;
  IndexedVector<PanelIndex, Iso3> inBody; ///< piece frame of the panel into the body's frame
  std::vector<PanelIndex> pages; ///< of the base: where they are follows from the opening alone
  /// Joints inside one body whose two sides do not lie where they should: glue holds both panels
  /// rigidly in another way.
  struct Misfit {
    PanelIndex first, second;
    double gap_mm = 0;      ///< the same at every opening
    Vec2 at = Vec2::Zero(); ///< on the second panel, in its piece's flat frame
  };
  std::vector<Misfit> misfits; ///< larger than motion::kAskew_mm

  static Mechanism from(const Assembly& assembly);
  /// Places the bodies of the base at an opening.
  void placeBase(const Assembly& assembly, double opening_rad,
                 IndexedVector<BodyIndex, Iso3>& poses) const;
  /// Frame of the joint's other body when `body` is at `pose`.
  Iso3 across(const Pair& pair, BodyIndex body, const Iso3& pose, double angle_rad) const;
  /// The fold angle in (-pi, pi] that two body poses imply; of a slide its unknown.
  double foldAngle(const Pair& pair, const Iso3& leftPose, const Iso3& rightPose) const;

private:
  void gatherBodies(const Assembly& assembly); ///< panels that glue holds together
  void addFold(const Assembly& assembly, FoldIndex fold);
  void addGuide(const Guide& guide, Pair pair);
  void addPair(Pair pair, const Iso3& left, const Iso3& right);
  bool repeats(const Pair& pair) const; ///< a hinge on the same line joins the same bodies
  void noteMisfit(PanelIndex first, const Iso3& firstInBody, PanelIndex second,
                  const Iso3& secondInBody, const std::vector<Vec2>& points,
                  const Iso3& secondToFirst = Iso3::Identity());
  void noteHeldGuide(const Guide& guide, bool slides, const Iso3& first, const Iso3& second);
};

} // namespace hinge
