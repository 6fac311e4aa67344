// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/assembly/builder.h"
#include "core/design/design.h"
#include "core/structures/ways.h"
#include <functional>
#include <vector>

namespace hinge {

/// What a recipe is given: sizes, the seat it stands on and the settings. It does not know whether
/// the seat is the card's gutter or a fold of another structure. `sideNames` are the letters for
/// the seat's first and second side as the user knows them (they are exchanged when the structure
/// is turned round).
struct RecipeInput {
  const StructureItem& item;
  ParameterValues values; ///< already exchanged when the structure is turned round
  Seat seat;              ///< already turned round when asked for
  const Settings& settings;
  double thickness_mm = starting::kCardThickness_mm;
  std::array<std::string, 2> sideNames{"a", "b"};
  bool turned = false;
  /// Of the paper of the panel on which a face is; its own when nobody says.
  std::function<double(std::string_view face)> faceThickness_mm = {};
  /// The structure as seats are labelled: the user's name for it or its id.
  std::string name() const { return item.label.empty() ? item.id.text() : item.label; }
  double value(std::string_view key) const { return values.find(key)->second; }
};

/// A line drawing of a structure with its dimensions, in a unit box (0..1, y up).
struct Sketch {
  struct Line {
    Vec2 from, to;
    enum class Use { Page, Paper, Fold } use;
  };
  struct Dimension {
    std::string_view key; ///< parameter this distance or angle is
    Vec2 from, to;
    std::optional<Vec2> corner; ///< set for an angle: the corner between `from` and `to`
  };
  std::vector<Line> lines;
  std::vector<Dimension> dimensions;
};

/// Kinds of seats as a set.
using SeatKinds = unsigned;
constexpr SeatKinds seatKinds(SeatKind kind) {
  return 1u << static_cast<unsigned>(kind);
}
constexpr SeatKinds kOnFolds = seatKinds(SeatKind::Valley) | seatKinds(SeatKind::Ridge);
constexpr SeatKinds kInValleys = seatKinds(SeatKind::Valley);
constexpr SeatKinds kOnFaces = seatKinds(SeatKind::Face);
constexpr SeatKinds kOnSpans = seatKinds(SeatKind::Span);
constexpr SeatKinds kOnCreases = seatKinds(SeatKind::Crease);
constexpr SeatKinds kOneSheet =
    1u << 8; ///< both sides of the fold must be one piece: the structure is cut from it
constexpr SeatKinds kMovedByBase = 1u << 9; ///< the fold must be one that moves the base

/// A structure kind: data and functions, entered in the registry. What it is called, what it is and
/// why it does not stand on other seats is said in words/ under "kind.KEY", "kind.KEY/summary" and
/// "kind.KEY/unsuitable".
struct StructureKind {
  std::string_view key;
  ParameterTable parameters; ///< that all its structures have; see StructureWays::rows
  SeatKinds stands;          ///< seats on which it works at all
  /// Conditions for shutting flat on a seat whose shut opening is 0 (valley) or 2 pi (ridge).
  std::vector<LinearClosure> (*closures)(double shutOpening_rad);
  /// Changes that keep the closures, gentlest first.
  std::vector<MendDirection> (*mendDirections)();
  /// Adds the pieces, joints, placement and new seats. Fails when the sizes make no possible panel.
  Result<void> (*build)(const RecipeInput&, AssemblyBuilder&);
  /// Starting sizes scaled so that the structure has room on the seat; closures hold.
  ParameterValues (*fit)(const Seat& seat, const Assembly& assembly, const Settings& settings);
  Sketch (*sketch)();
  const StructureWays* ways = &tableWays();

  /// True when a new one can be proposed on the seat.
  bool offeredOn(const Seat& seat, const Assembly& assembly, const Settings& settings) const {
    return standsOn(seat, assembly) && ways->canDraft({*this, seat, assembly, settings, {}});
  }

  Text name() const { return "kind." + std::string(key); }

  bool standsOn(const Seat& seat, const Assembly& assembly) const {
    const bool oneSheet =
        assembly.panels[seat.sides[0].panel].piece == assembly.panels[seat.sides[1].panel].piece;
    return (stands & seatKinds(seat.kind())) != 0 && (oneSheet || !(stands & kOneSheet)) &&
           (!(stands & kMovedByBase) || assembly.driveBetween(seat));
  }
};

} // namespace hinge
