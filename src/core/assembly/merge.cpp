// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assembly/merge.h"

namespace hinge {
namespace {

class TakingIn {
public:
  TakingIn(Assembly& into, const Assembly& from, StructureId owner, const std::string& name)
      : m_into(into), m_from(from), m_owner(owner),
        m_name(name), m_taken{into.panels.size(), into.folds.size()}, m_pieces(into.pieces.size()) {
  }

  Taken run(bool moving) {
    pieces();
    for (Fold fold : m_from.folds) {
      fold.key = key(fold.key), fold.label = label(fold.label);
      fold.left = m_taken.panel(fold.left), fold.right = m_taken.panel(fold.right);
      m_into.addFold(std::move(fold));
    }
    for (const Joint& joint : m_from.joints)
      m_into.addJoint(taken(joint));
    for (const Seat& seat : m_from.seats)
      m_into.seats.push(taken(seat));
    if (!moving) return m_taken;
    for (Placement placement : m_from.placements) {
      placement.owner = m_owner, placement.seat = taken(placement.seat);
      for (PanelIndex& p : placement.panels)
        p = m_taken.panel(p);
      m_into.placements.push_back(std::move(placement));
    }
    return m_taken;
  }

private:
  std::string key(const std::string& own) const { return m_owner.text() + "/" + own; }
  Text label(const Text& own) const { return {"of", own, m_name}; }

  void pieces() {
    for (Piece piece : m_from.pieces) {
      piece.key = key(piece.key), piece.owner = m_owner;
      for (PanelIndex& p : piece.panels)
        p = m_taken.panel(p);
      for (Feature& feature : piece.features)
        std::visit([&](auto& made) { renumber(made); }, feature);
      m_into.pieces.push(std::move(piece));
    }
    for (Panel panel : m_from.panels) {
      panel.key = key(panel.key), panel.owner = m_owner;
      panel.piece = PieceIndex(static_cast<std::size_t>(panel.piece.value) + m_pieces);
      panel.folds.clear(), panel.gluedBy = {}; // put in with folds and joints
      panel.twin = m_taken.panel(panel.twin);
      // A page of the small card is a wall of the large one: the hand does not hold it.
      if (panel.use == PanelUse::Page) panel.use = PanelUse::Wall;
      m_into.panels.push(std::move(panel));
    }
  }

  template <class Made> void renumber(Made& made) const {
    made.panel = m_taken.panel(made.panel);
    if constexpr (std::is_same_v<Made, Strap>) {
      made.carrier = m_taken.panel(made.carrier);
      for (FoldIndex& fold : made.folds)
        fold = m_taken.fold(fold);
    }
  }

  Joint taken(Joint joint) const {
    std::visit(
        [&](auto& made) {
          using Made = std::decay_t<decltype(made)>;
          if constexpr (std::is_same_v<Made, Glue>) {
            made.tab = m_taken.panel(made.tab), made.host = m_taken.panel(made.host);
          } else {
            made.key = key(made.key), made.owner = m_owner;
            if constexpr (std::is_base_of_v<Guide, Made>)
              made.first = m_taken.panel(made.first), made.second = m_taken.panel(made.second);
            else
              for (PanelIndex& p : made.panels)
                p = m_taken.panel(p);
          }
        },
        joint);
    return joint;
  }

  Seat taken(Seat seat) const {
    seat.key = key(seat.key), seat.label = label(seat.label);
    if (!seat.twin.empty()) seat.twin = key(seat.twin);
    for (SeatSide& side : seat.sides)
      side.panel = m_taken.panel(side.panel);
    return seat;
  }

  Assembly& m_into;
  const Assembly& m_from;
  StructureId m_owner;
  std::string m_name;
  Taken m_taken;
  std::size_t m_pieces;
};

} // namespace

Taken takeIn(Assembly& into, const Assembly& from, StructureId owner, const std::string& name,
             bool moving) {
  const std::size_t before = into.pieces.size();
  const Taken taken = TakingIn(into, from, owner, name).run(moving);
  into.readyMade.resize(before, 0);
  into.readyMade.resize(into.pieces.size(), 1);
  return taken;
}

} // namespace hinge
