// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"
#include "core/design/design.h"

namespace hinge {

using FaceIndex = Index<struct FaceTag>;

/// One side of a panel, as it is looked at: in the frame of the seat on it, x along the line on
/// which the panel stands, y up from there, z out of the paper to the eye.
struct Face {
  std::string key; ///< that of the seat: "s3/wall-a", "s3/wall-a-back"
  SeatIndex seat;
  PanelIndex panel;
  bool back = false;
  Iso3 toPiece;   ///< into the piece's flat frame
  Region outline; ///< of the panel, as it is looked at
};

/// Every side of every panel that can be dressed, in the order of the seats: not tabs up to 25 mm
/// deep, nor what comes ready made.
KeyedVector<FaceIndex, Face> facesOf(const Assembly& assembly);

/// What is glued onto a face besides toppers, as it is looked at; `stands`: the line on which the
/// rest of that piece stands off the face, if it does.
struct GluedOn {
  PanelIndex tab;
  std::vector<Region> area;
  std::optional<Edge> stands;
};
std::vector<GluedOn> gluedOnto(const Assembly& assembly, const Face& face);
/// The part of a face that is itself glued to something.
std::vector<Region> gluedAway(const Assembly& assembly, const Face& face);

/// The faces that a rule is meant for, seen from its own; without visibility (`seen` empty) those
/// that are meant by what is seen are none. `seen` has a class for every face.
enum class SeenClass { Hidden, Opening, Display };
std::vector<FaceIndex> reachedBy(const DressRule& rule, const Assembly& assembly,
                                 const KeyedVector<FaceIndex, Face>& faces,
                                 const std::vector<SeenClass>& seen);

} // namespace hinge
