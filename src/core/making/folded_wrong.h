// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/motion/motion.h"
#include <stop_token>

namespace hinge {

/// What comes of a piece one of whose folds was folded to the other side.
struct FoldedWrong {
  enum class What {
    DoesNotMeet, ///< it cannot be glued in at all: its feet stay `gap_mm` apart
    Jams,        ///< while the card shuts it stops at `at_rad`
    Hits,        ///< it goes through `other`, first at `at_rad` while the card shuts
    Works        ///< it moves that way as well
  };
  What what = What::Works;
  double at_rad = 0, gap_mm = 0;
  PanelIndex panel, other;              ///< Hits
  std::shared_ptr<const Motion> motion; ///< of the card with it; null when it does not meet
};

/// Works it out by the same engine, with the fold's sense turned and nothing else. Cost: a trace
/// and a search for contacts of that structure. Nothing after a stop request.
std::optional<FoldedWrong> foldedWrong(const Assembly& assembly, FoldIndex fold,
                                       std::stop_token stop = {});

} // namespace hinge
