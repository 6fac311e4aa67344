// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/dress/layers.h"
#include "core/making/order.h"

namespace hinge {

/// When the faces of one piece get their layers.
struct DressMoment {
  PieceIndex piece;
  std::vector<FaceIndex> faces; ///< in the order of the faces
  /// The step after which it is done (index in AssemblyOrder::steps); -1: before all of them, while
  /// the piece lies flat.
  int after = -1;
  /// The first step for which it must have been done, because something is glued onto the layers;
  /// -1: none.
  int before = -1;
  /// Layers that lie over a tab leave a slit for what stands there. A slit that is closed all round
  /// has to be slipped over it, or the layer is cut open: the length of that cut (mm); 0: the slit
  /// is open.
  double cutOpen_mm = 0;
};

/// All of them: first what is dressed flat, in the order of the pieces, then by step. Layers under
/// or around what is glued on are stuck on while their piece is flat, for a flat piece can be
/// rubbed down on a table; layers over tabs after the last of those is glued.
std::vector<DressMoment> dressMoments(const Design& design, const Assembly& assembly,
                                      const KeyedVector<FaceIndex, Face>& faces,
                                      const std::vector<DressedFace>& dressed,
                                      const AssemblyOrder& order);

} // namespace hinge
