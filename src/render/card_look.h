// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/dress/layers.h"
#include "core/model/snapshot.h"
#include <QPainterPath>
#include <QTransform>
#include <span>

namespace hinge {

/// Paper that is seen on one side of a panel, in the flat frame of its piece (mm, y up).
struct Coat {
  Paper paper;
  bool back = false; ///< the back of that paper is outside
  QPainterPath outline;
  QTransform pattern;  ///< from the pattern's frame into that of the piece
  bool ground = false; ///< the paper of the piece itself
};

/// What every side of every panel looks like: the paper it is cut from, and the layers on it, the
/// lowest first. Plain card has no coat of its own.
class CardLook {
public:
  CardLook(const Design& design, const Assembly& assembly,
           const KeyedVector<FaceIndex, Face>& faces, const std::vector<DressedFace>& dressed);
  std::span<const Coat> coats(PanelIndex panel, bool back) const {
    return m_sides[static_cast<std::size_t>(2 * panel.value + (back ? 1 : 0))];
  }

private:
  void addPaper(const Paper& paper, const Assembly& assembly, PanelIndex panel);
  std::vector<std::vector<Coat>> m_sides;
};

/// With all that has to be worked out for it.
std::shared_ptr<const CardLook> lookOf(const Snapshot& snapshot);

} // namespace hinge
