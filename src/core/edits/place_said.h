// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edits/laying.h"
#include "core/pieces/placing.h"

namespace hinge {

/// What a maker would say of the place: how far a line of the panel (a score before an edge) is
/// from a line of what lies below that runs alike (a fold before an edge), the nearest in each of
/// two directions, a fold first. Of what does not lie flat, or lies askew, its point.
struct SaidDistance {
  placed::Distance rule;
  Vec2 from, to; ///< where it is measured, on the face: square from the line below
  std::optional<placed::Centred> middle = {}; ///< the panel's is over that of this line
};
std::vector<SaidDistance> distancesSaid(const Assembly& assembly, const PieceWork& work,
                                        const HeldSheet& lying);
/// The same, with middle over middle where lines do not meet.
std::vector<PlaceRule> placeSaid(const Assembly& assembly, const PieceWork& work,
                                 const HeldSheet& lying);
/// Those of them that a hand means to keep: where lines meet, or middles.
std::vector<PlaceRule> metBy(const std::vector<PlaceRule>& said);
/// The card with rules for all joints on its base that have none, of one piece or all: what would
/// be said of where they lie now, so that nothing moves. Joints of which two rules cannot say it
/// stay as they are, and so do those of a piece that is moved along its fold.
Design keptByRules(const Design& design, const Assembly& assembly,
                   const std::optional<StructureId>& only);

/// The sheet laid as rules say.
Result<HeldSheet> laidBy(const Assembly& assembly, const PieceWork& work, const HeldSheet& lying,
                         const std::vector<PlaceRule>& rules);

} // namespace hinge
