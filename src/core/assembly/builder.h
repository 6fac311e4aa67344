// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/assembly.h"

namespace hinge {

/// Collects what a recipe makes. Keys are prefixed with the owner ("s3/"); the first problem found
/// is kept and reported by status(), so that recipes read as a list of parts.
class AssemblyBuilder {
public:
  explicit AssemblyBuilder(Assembly& assembly, std::optional<StructureId> owner)
      : m_assembly(assembly), m_owner(owner), m_name(owner ? owner->text() : "card"),
        m_firstPiece(assembly.pieces.size()), m_firstFold(assembly.folds.size()) {}

  std::optional<StructureId> owner() const { return m_owner; }
  PieceIndex piece(std::string_view role, Text label);
  /// Outline in the piece's frame, either direction of travel. Must be a simple polygon with an
  /// area.
  PanelIndex panel(PieceIndex piece, std::string_view role, Text label, PanelUse use,
                   Polygon outline);
  /// A fold along from -> to, which must lie on the outlines of both panels, `left` on the left
  /// hand.
  FoldIndex fold(std::string_view role, Text label, PanelIndex left, PanelIndex right, Vec2 from,
                 Vec2 to, FoldSense sense, double shutAngle_rad);
  void glue(PanelIndex tab, PanelIndex host, const Iso3& tabToHost, bool byFace = true,
            Polygon area = {});
  /// Keeps what the rules of a joint came to (see Assembly::byRule).
  void placedByRule(PlacedByRule placed) { m_assembly.byRule.push_back(std::move(placed)); }
  /// Cuts a region across the seat's fold free from the panels on both sides, so that a structure
  /// can be made of it. The fold is opened from `from_mm` to `to_mm` along it; `onFirst` and
  /// `onSecond` are the corners of the region inside each side, in that side's frame, in the order
  /// of rising y. The seat must be a fold of one sheet and the region must lie inside the panels:
  /// what fails is named in status().
  void cutAcross(const Seat& seat, double from_mm, double to_mm, const std::vector<Vec2>& onFirst,
                 const std::vector<Vec2>& onSecond);
  /// Cuts a window (corners in the panel's flat frame) out of a panel; fails when it runs past the
  /// edge or leaves less than a millimetre of paper beside it.
  void cutWindow(PanelIndex panel, const Polygon& window);
  /// The piece a seat side belongs to.
  PieceIndex pieceOf(const SeatSide& side) const { return m_assembly.panels[side.panel].piece; }
  /// Offers a seat and returns it, for recipes that build on their own seats.
  Seat seat(std::string_view role, Text label, const SeatSide& first, const SeatSide& second,
            double length_mm, double shutOpening_rad);
  /// Says of a seat that its fold does not fold over in the shut card.
  void crease(const std::string& seatKey);
  /// Folds made since this builder began, those of other owners' panels included.
  std::size_t firstFold() const { return m_firstFold; }
  /// Offers the faces of a panel, standing on the line from -> to with the panel on its left hand,
  /// as "key of the panel" (its face) and the same with "-back".
  void faceSeats(PanelIndex panel, const Vec2& from, const Vec2& to);
  /// Two panels, or two seats by their roles, that are the same on both sides of the structure.
  void twins(PanelIndex one, PanelIndex other);
  void twinSeats(std::string_view role, std::string_view other);
  void dimension(std::string key, PanelIndex panel, const Vec2& from, const Vec2& to,
                 std::optional<Vec2> corner = {});
  /// The same in the frame of a seat side, on the panel of that side.
  void dimensionOn(const SeatSide& side, std::string key, const Vec2& from, const Vec2& to,
                   std::optional<Vec2> corner = {});
  /// `poses` gives the panels in the seat's frame (origin at the start of the fold, y along it, z
  /// towards the structure, x from the first side to the second) when the seat is open by an angle.
  void placement(const Seat& on, std::vector<PanelIndex> panels,
                 std::function<std::optional<std::vector<Iso3>>(double opening_rad)> poses);
  /// `between` gives them in the frame of the span's first side when its second side is at a pose
  /// in that frame.
  void placementBetween(const Seat& span, std::vector<PanelIndex> panels,
                        std::function<std::optional<std::vector<Iso3>>(const Iso3&)> between);

  /// The panels of a structure for which there is no closed form: the motion engine puts them
  /// together.
  void placementByRings(const Seat& on, std::vector<PanelIndex> panels) {
    m_assembly.placements.push_back({m_owner, on, std::move(panels), {}});
  }
  /// Joins two panels by a slot, pivot, slide, band or film.
  template <class Kind> JointIndex join(std::string_view role, Kind made) {
    made.key = key(role), made.owner = m_owner;
    return m_assembly.addJoint(std::move(made));
  }
  /// Cuts a slit of a width into a panel of any owner, from `inner` (in the panel's flat frame)
  /// along `way` to its edge; with a length it ends at that edge but starts elsewhere on the line.
  /// The last `catch_mm` before the edge are a bare cut. Returns the inner end.
  Vec2 slit(PanelIndex panel, const Vec2& inner, const Vec2& way, double width_mm,
            std::optional<double> length_mm = {}, double catch_mm = 0);

  /// Notes what has been worked into a piece (slits and windows note themselves).
  void feature(PieceIndex piece, Feature made);

  const Assembly& assembly() const { return m_assembly; }
  Assembly& assembly() { return m_assembly; }
  /// The first problem met, or panels of one piece that would lie on one another in the flat sheet.
  Result<void> status() const;

private:
  std::string key(std::string_view role) const;
  void notch(const SeatSide& side, double from_mm, double to_mm, const std::vector<Vec2>& corners);
  bool openFold(const Seat& seat, const Vec2& from, const Vec2& to);
  void fail(Text message, std::string place);

  Assembly& m_assembly;
  std::optional<StructureId> m_owner;
  std::string m_name; ///< what its keys begin with
  std::size_t m_firstPiece, m_firstFold;
  std::optional<Error> m_error;
};

/// A seat side on a panel of a piece, in the piece's flat frame.
SeatSide sideOn(PanelIndex panel, const Vec2& origin, const Vec2& x, const Vec2& y);
/// Seat of a fold between two panels of one piece along from -> to in its flat frame, the first
/// panel on the left.
Seat seatOnFold(AssemblyBuilder& builder, std::string_view role, Text label, PanelIndex left,
                PanelIndex right, const Vec2& from, const Vec2& to, double shutOpening_rad);

/// A glue tab right of the line from -> to: a trapezoid with leaning ends, cut back to where
/// `keepInside` (a convex polygon) holds. Returns its outline with the base corners first; empty
/// when nothing is left of it.
Polygon tabOutline(const Vec2& from, const Vec2& to, double depth_mm, double bevel_deg,
                   const Polygon& keepInside = {});

/// The depth of a tab measured from its base line, where it is deepest.
double tabDepth_mm(const Polygon& outline, const Vec2& from, const Vec2& to);

} // namespace hinge
