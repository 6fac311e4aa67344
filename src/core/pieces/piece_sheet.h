// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/piece_work.h"
#include "core/geom/subdivision.h"

namespace hinge {

/// A free piece parted by its lines and by the openings that cross them.
struct PieceSheet {
  Subdivision parts;
  std::vector<char> paper;        ///< per face: it is no opening
  std::vector<std::size_t> holes; ///< windows that lie inside one panel

  explicit PieceSheet(const PieceWork& work);
  /// The face of paper that holds a point, the number of faces when none does; a point on a score
  /// belongs to the first of its panels.
  std::size_t faceAt(const Vec2& at) const;
  bool hasPaper(const Vec2& at) const { return faceAt(at) < parts.faces.size(); }
};

} // namespace hinge
