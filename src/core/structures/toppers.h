// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/design/design.h"

namespace hinge {

/// The shapes that a topper is cut to, in its own frame (its middle the origin): one, or for
/// lettering the letters.
std::vector<Region> shapesOf(const Topper& topper);
/// The same with its mat: what it takes up.
std::vector<Region> takenBy(const Topper& topper, const Settings& settings);

/// The frame of a topper in the flat piece whose panel carries it.
Iso3 onPiece(const Topper& topper, const Seat& face);

/// Where a shape in the frame of a topper may be held: what of it lies on the panel of the face,
/// clear of every fold of that panel. In the topper's frame.
std::vector<Region> fixingZone(const Assembly& assembly, const Seat& face, const Topper& topper,
                               const Region& shape, double foldClearance_mm);

/// The keys of the panels that lie on the face itself, one for each shape: its mat where it has
/// one.
std::vector<std::string> lowestPanels(const Topper& topper, const Settings& settings);
/// Whether a panel key is one of the topper's.
bool isPartOf(const Topper& topper, std::string_view panelKey);

/// Makes the toppers of a design into pieces that are glued onto their faces ("t1/shape-1",
/// "t1/mat-1"). One whose face is not there is left out.
void addToppers(const Design& design, Assembly& assembly);

} // namespace hinge
