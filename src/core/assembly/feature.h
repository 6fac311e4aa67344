// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/index.h"
#include "core/geom/region.h"
#include <array>
#include <variant>

namespace hinge {

using PanelIndex = Index<struct PanelTag>;
using FoldIndex = Index<struct FoldTag>;

// What a recipe works into the paper of a piece besides panels and folds, in the piece's flat frame
// (mm). Recipes write features where they build them; checks, states, production and files read
// them, so that nobody has to know a thing by its shape.

/// A slit from an edge into a panel, as wide as what is pushed into it; it is a notch of the
/// outline. Where it has a catch, the last stretch before the edge is a bare cut in the real paper:
/// its lips stand aside while the other paper goes past, which is how the outline has it.
struct Slit {
  PanelIndex panel;
  std::array<Vec2, 2> inner, lips; ///< ends of its two sides, right and left of the way out
  double width_mm = 0, catch_mm = 0;
  Vec2 wayOut() const { return (lips[0] - inner[0]).normalized(); }
};

/// A bare cut inside a panel that parts nothing.
struct Cut {
  PanelIndex panel;
  Vec2 from, to;
};

/// A stretch of a score that ends in the paper: nothing folds there.
struct IdleScore {
  PanelIndex panel;
  Vec2 from, to;
  int line = 0;       ///< in its sheet, from 1
  bool folds = false; ///< the rest of its line does
};

/// An opening in a panel.
struct Window {
  PanelIndex panel;
  std::size_t hole = 0; ///< in the holes of the panel's outline
};

/// A piece folded round what lies on a panel, and closed on itself.
struct Strap {
  PanelIndex panel, carrier;      ///< its middle panel, and the panel on which that lies or slides
  std::array<FoldIndex, 2> folds; ///< between which it goes round
};

using Feature = std::variant<Slit, Cut, Window, Strap, IdleScore>;

} // namespace hinge
