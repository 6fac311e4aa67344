// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/blocks.h"
#include "core/units/tolerances.h"

namespace hinge {

/// Puts bodies together for which there is no closed form, at one opening: random fold angles on
/// the side of each fold's mountain or valley, closed by the corrector; solutions in which a fold
/// has gone to the wrong side are thrown away. The choice is the same every time; joints may stand
/// askew by what no paper knows (motion::kAskew_mm). Folds of glue tabs may lie on either side when
/// nothing else closes.
///
/// `loose` are the bodies sought, `placed` marks those that are known; `poses` holds them and
/// receives the rest. Fails when a body hangs on nothing or no solution has the right signs. Cost:
/// up to some hundred corrections of all unknowns at once. With `near` the fold angles are tried
/// first as they are there: poses of the same bodies in a design that differs a little; then a few
/// tries have to do if that fails. Returns the motions left free, or nothing after `tries` with and
/// as many without the signs of tabs.
std::optional<int> putTogether(const Mechanism& mechanism, const Assembly& assembly,
                               const std::vector<BodyIndex>& loose, const std::vector<char>& placed,
                               BodyPoses& poses, int tries, const BodyPoses* near = nullptr);

/// How near the bodies come to closing that cannot be put together: the widest gap of the best try,
/// and the fold or joint at which it stays open. A gap of nothing: they close, but with folds on
/// the other side than they are marked.
struct Miss {
  double gap_mm = 0;
  FoldIndex fold;
  JointIndex joint;
  bool closesTheOtherWay() const { return gap_mm < motion::kAskew_mm; }
};
/// Nothing when they hang on nothing, or no ring goes through them.
std::optional<Miss> nearestMiss(const Mechanism& mechanism, const Assembly& assembly,
                                const std::vector<BodyIndex>& loose,
                                const std::vector<char>& placed, const BodyPoses& poses, int tries);

} // namespace hinge
