// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/joint.h"
#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace hinge {

using PieceIndex = Index<struct PieceTag>;
using SeatIndex = Index<struct SeatTag>;

enum class PanelUse { Page, Wall, Tab, Topper };
enum class FoldSense { Mountain, Valley }; ///< as seen from the piece's face side

/// A rigid part of a piece. The outline is in the piece's flat frame: millimetres, face side up
/// (+z).
struct Panel {
  std::string key; ///< stable: "card/page-a", "s2/wall-a"
  Text label;      ///< "wall a"
  std::optional<StructureId> owner;
  PieceIndex piece;
  PanelUse use = PanelUse::Wall;
  Region outline;
  std::vector<FoldIndex> folds; ///< that run along its edges
  JointIndex gluedBy;           ///< the first glue that holds it as a tab, if any
  PanelIndex twin; ///< the same panel on the other side of its structure or base, if there is one
};

/// A hinge between two panels of one piece. The line runs with `left` on its left hand. The fold
/// angle is 0 when the panels continue each other flat, positive for a valley seen from the face,
/// +-pi when they lie on one another.
struct Fold {
  std::string key;
  Text label;
  PanelIndex left, right;
  Vec2 from, to;
  FoldSense sense = FoldSense::Valley;
  double shutAngle_rad = 0; ///< 0 or +-pi: the fold angle in the shut card
  /// Held at this fold angle, whatever the card does: by its maker, or because nothing but the fold
  /// holds what lies beyond it (`hangs`). The panels move as one.
  std::optional<double> rest_rad = {};
  bool hangs = false;
  /// The fold angle at which the search for the pose of a piece without closed form begins.
  std::optional<double> start_rad = {};
  /// False for folds of free pieces: how they lie in the shut card is what the motion comes to (see
  /// Motion::shutAngle).
  bool shutKnown = true;
};

/// 1 is "a", 26 "z", 27 "aa" and so on, for a `first` letter of "a".
std::string letters(int number, char first);

/// The map from the right panel to the left one at a fold angle: both lie in one flat piece.
Iso3 foldedOver(const Fold& fold, double angle_rad);

/// One flat part cut from one sheet.
struct Piece {
  std::string key;
  Text label;
  std::optional<StructureId> owner;
  std::vector<PanelIndex> panels;
  std::string paper;             ///< it is cut from: a key in the design's drawer
  double thickness_mm = 0;       ///< of that paper; filled in by assembleDesign()
  std::vector<Feature> features; ///< what its recipe, and those that cut into it, worked into it
};

/// One side of a fold on which a structure can stand. `toPiece` maps the side's frame (x away from
/// the fold inside the panel, y along the fold) into the panel's piece frame. With y up and the
/// structure towards the eye the first side is on the left; its structure-facing normal is
/// therefore -z of this frame, that of the second side +z.
struct SeatSide {
  PanelIndex panel;
  Iso3 toPiece;
};

/// A crease does not fold over in the shut card: it stays as it is, or lies flat then.
enum class SeatKind { Valley, Ridge, Face, Span, Crease };

/// A fold or a face on which a structure can stand. The opening is measured on the side of the
/// structure: 0..pi in a valley, pi..2 pi over a ridge. A face is a seat that always lies open at
/// pi: both its sides are the same frame on one panel, with x along the line on which the panel
/// stands, y up from it and z out of the paper to the structure.
struct Seat {
  std::string key; ///< "gutter", "s3/ridge"
  Text label;      ///< "gutter", "ridge of s3"
  std::array<SeatSide, 2> sides;
  double length_mm = 0;
  double shutOpening_rad = 0; ///< 0 (valley), 2 pi (ridge) or pi (face)
  /// A span has its sides on two pages of the base that share no fold: x away from the fold nearest
  /// to the other page.
  bool span = false;
  bool crease = false; ///< not folded over in the shut card: its shut opening is any
  std::array<bool, 2> fromBehind{
      false, false}; ///< of a span: what stands on it is glued to the back of that page
  std::string twin;  ///< the seat on the other side of its structure; of faces see otherSideOf()
  SeatKind kind() const {
    return span                               ? SeatKind::Span
           : sides[0].panel == sides[1].panel ? SeatKind::Face
           : crease                           ? SeatKind::Crease
           : shutOpening_rad < kPi            ? SeatKind::Valley
                                              : SeatKind::Ridge;
  }
};

/// Where the panels of a structure are in the world when the pieces of its seat's two sides are
/// there. Nothing where the structure cannot reach. Only a first guess: the motion engine solves
/// from it. Without `poses` it puts the panels together itself.
struct Placement {
  std::optional<StructureId> owner; ///< nothing: the base
  Seat seat;
  std::vector<PanelIndex> panels;
  std::function<std::optional<std::vector<Iso3>>(const Iso3& firstPiece, const Iso3& secondPiece)>
      poses;
};

/// Where a parameter can be seen and grasped: a distance (from, to) or an angle (from, corner, to)
/// in the plane of a panel, in its piece's flat frame.
struct DimensionMark {
  StructureId owner;
  std::string key;
  PanelIndex panel;
  Vec2 from, to;
  std::optional<Vec2> corner;
};

/// A fold of the base that is moved: its fold angle follows the opening of the card (0 shut to pi)
/// in a straight line, within its own stretch of it.
struct Drive {
  FoldIndex fold;
  double shut_rad = kPi, open_rad = 0; ///< fold angles before and after the stretch
  double from_rad = 0, to_rad = kPi;   ///< openings between which it moves
  double angle_rad(double opening_rad) const;
};

/// A fold that is lifted, a pin that is spun or a slide that is pulled by hand, from where it
/// rests, and what goes along with it.
struct Lift {
  FoldIndex fold; ///< one of the two is valid
  JointIndex joint;
  double least = 0, most = 0; ///< fold angle or turn in rad, way in mm; the first as it rests
  std::vector<PanelIndex> panels;
  bool secondMoves = true; ///< the panels hang on the fold's right panel, the joint's second
  bool slides = false;     ///< mm
  double step = 0;         ///< stops every so far on its way; 0: anywhere
  /// What moves in more ways than about one line (a card on a card): the poses of its panels, in
  /// the piece frame of the panel that stays, at a share of the way.
  PanelIndex stays = {};
  std::function<std::vector<Iso3>(double share)> poses = {};
  /// The nearest place on its way, as a share of it, at which it stops.
  double stopAt(double share) const;
  double nextStop(double share) const; ///< beyond a share; 1 at the end
};

/// Paper that lies on a panel as it is, whatever joints hold it there: it comes made. `at` maps its
/// piece frame into that of the panel.
struct Carried {
  PanelIndex panel, host;
  Iso3 at;
};

/// A joint of a free piece, or of a sheet of the base, that is placed by rules: as it lies now.
struct PlacedByRule {
  std::optional<StructureId> owner; ///< nothing: the base
  std::size_t sheet = 0;            ///< of the base
  std::size_t number = 0;           ///< of its joints, from 0
  PanelIndex own, below;            ///< the panels that it joins
  PieceJoint joint;                 ///< with the numbers that the rules come to
  std::optional<Error> lost = {};   ///< why they come to nothing: its last numbers count
};

/// What the recipes make of a design: everything that is cut, folded and glued, still flat.
struct Assembly {
  IndexedVector<PieceIndex, Piece> pieces;
  KeyedVector<PanelIndex, Panel> panels;
  KeyedVector<FoldIndex, Fold> folds; ///< put in by addFold()
  KeyedVector<SeatIndex, Seat> seats;
  std::vector<DimensionMark> dimensions;
  std::vector<Placement> placements; ///< in the order of the design: hosts before guests

  IndexedVector<JointIndex, Joint> joints; ///< made by hand; put in by addJoint()
  /// Of these what may place something with the pages besides the glue of what a drive folds: glue
  /// of tabs that are the base's own or are glued twice, slides that are pulled.
  std::vector<JointIndex> jointsOfBase;

  std::vector<PlacedByRule> byRule;
  std::vector<Carried> carried;
  std::vector<char> readyMade; ///< per piece: comes made, with the joints between such pieces
  std::vector<Lift> lifts;     ///< filled in by settleLooseFolds()
  std::vector<Drive> drives;   ///< the folds of the base; the user moves all of them by one opening
  PanelIndex root;             ///< its frame in the world is given by rootPose
  double openBy_rad =
      kPi; ///< way of the leaf by which the base is fully open; the rest moves what is pulled
  double low_rad = 0, high_rad = kPi; ///< openings between which the card is used
  /// By how much loops and joints may miss closing: paper gives that.
  double closureLimit_mm = starting::kClosureLimit_mm;
  double pinPlay_mm = 0;   ///< how far apart the middles of two holes on one pin may come
  double slidePlay_mm = 0; ///< how far what slides may stand beside its line
  bool symmetric =
      true; ///< two pages that lie symmetrically about the plane x = 0; else the root lies still

  /// How far the base itself has opened (0 to pi) on the way of the leaf.
  double baseOpening_rad(double opening_rad) const;
  /// Pose of the root panel's piece frame at an opening.
  Iso3 rootPose(double opening_rad) const;
  /// Where the pages of the base are at an opening, what the base glues onto them and what a pull
  /// moves on them (piece frames into the world), the root first.
  std::vector<std::pair<PanelIndex, Iso3>> basePoses(double opening_rad) const;
  /// Turns the world so that the page that lies on the table is level, face up.
  Iso3 onTable(double opening_rad) const;

  FoldIndex addFold(Fold fold);
  JointIndex addJoint(Joint joint);

  /// The drive that moves the fold of a seat; null where none does.
  const Drive* driveBetween(const Seat& seat) const;
  const Seat* findSeat(std::string_view key) const;
  /// The seat on the other side of a structure or of the base: "s3/valley-a" -> "s3/valley-b", a
  /// face of a panel -> that of its twin. Empty when there is none.
  std::string otherSideOf(std::string_view seatKey) const;
  PanelIndex findPanel(std::string_view key) const { return panels.find(key); }
  /// Of the paper that a panel is cut from.
  double thickness_mm(PanelIndex panel) const { return pieces[panels[panel].piece].thickness_mm; }
  FoldIndex findFold(std::string_view key) const { return folds.find(key); }
  const std::vector<FoldIndex>& foldsOf(PanelIndex panel) const { return panels[panel].folds; }
  /// The joints of one kind: `for (const auto& [index, glue] : assembly.every<Glue>())`.
  template <class Kind> JointsOf<Kind> every() const { return JointsOf<Kind>(joints); }
  const Glue* glueOf(PanelIndex tab) const;
  /// Who made a joint: of a glue who made its tab. Nothing: the base.
  std::optional<StructureId> ownerOf(const Joint& joint) const;
};

/// The paper that takes the glue, in the flat frame of the tab's piece: all of the tab, or the part
/// of it that its maker chose.
std::vector<Region> gluedOf(const Assembly& assembly, const Glue& glue);

/// Bare cuts inside a panel.
std::vector<Edge> cutsIn(const Assembly& assembly, PanelIndex panel);

/// Seat frame in space from the poses of its two panels' pieces, and the opening on the structure's
/// side.
struct SeatPose {
  Iso3 frame;
  double opening_rad;
};
SeatPose seatPose(const Seat& seat, const Iso3& firstPiece, const Iso3& secondPiece);

/// How far the panel extends from the middle of the fold (of a face: from the middle of its lower
/// line), in mm: the room a structure has on that side.
double seatDepth_mm(const Seat& seat, int side, const Assembly& assembly);

} // namespace hinge
