// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/design.h"

namespace hinge {

/// What of a card is drawn to scale and has edges to pull.
enum class CardFigure { Open, Shut };

/// The card with the far edge of a figure pulled outwards by `by_mm`: across the folds the right
/// one of the flat base, along them the upper one. The size that comes of it lies on the maker's
/// lattice. Of a base of sheets the open figure is the first sheet itself, whose edge moves; of
/// every other base, and of the shut figure, it is the finished size that gives. Fails where no
/// size moves that edge, or the card cannot be so.
Result<Design> withEdgePulled(const Design& design, CardFigure figure, bool across, double by_mm);

} // namespace hinge
