// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/structures/recipe.h"

namespace hinge {

/// The closures of a kind that shuts flat whatever its sizes.
std::vector<LinearClosure> noClosures(double shutOpening_rad);

/// The parameter's key as the user knows it: that of the twin when the recipe builds a turned
/// structure.
std::string shownKey(const RecipeInput& input, ParameterTable table, std::string_view key);

/// What the valley between a panel and what it stands on is called: "valley at wall a of Roof".
inline Text valleyAt(Text panel, const RecipeInput& input) {
  return Text("valley-at-of", std::move(panel), input.name());
}

/// The seat seen from its other end: a structure built on it points the other way along the fold.
Seat turnedRound(const Seat& seat);

/// A seat side inside `host`: origin, x (away from the new fold) and y (along it) in the host
/// side's own frame.
SeatSide sideWithin(const SeatSide& host, const Vec2& origin, const Vec2& x, const Vec2& y);

/// True when a structure built here lies away from the fold in the shut card (valley), false over a
/// ridge.
inline bool isValley(double shutOpening_rad) {
  return shutOpening_rad < kPi;
}

/// The two ends of the part of the outline that lies on the line through from and to, ordered along
/// it; nothing when that part is shorter than 1 mm.
std::optional<std::pair<Vec2, Vec2>> baseOnLine(const Polygon& outline, const Vec2& from,
                                                const Vec2& to);

/// A glue tab of a wall: where it hangs, on what it is glued and how it folds.
struct GluedTab {
  PanelIndex wall;
  Vec2 from, to;    ///< base line in the wall's flat piece, the tab on its right hand
  std::string role; ///< of the tab; its fold is named "fold" in place of "tab"
  Text label;
  PanelIndex host;
  Iso3 flatToHost; ///< the piece continued flat over the base line into the host's piece frame
  FoldSense sense = FoldSense::Mountain;
  double shutAngle_rad = 0;
  bool byFace = true;
  Polygon keepInside = {}; ///< convex, in the flat piece; empty: everywhere
};
PanelIndex addTab(AssemblyBuilder& builder, const RecipeInput& input, PieceIndex piece,
                  const GluedTab& tab);

/// The seat from the other side of the paper: a ridge becomes a valley and the other way round.
Seat seenFromBelow(const Seat& seat);

/// Adds a glue tab right of the line from -> to on `wall`, folds it and glues it to `side`.
/// `flatToSide` maps the piece's flat frame, continued flat over the fold, into the side's frame.
/// `clipToSide_mm` >= 0 keeps the tab at least that far from the seat's fold. Shared by all
/// structures that are glued on.
void addGluedTab(AssemblyBuilder& builder, const RecipeInput& input, PanelIndex wall,
                 PieceIndex piece, const Vec2& from, const Vec2& to, const std::string& sideName,
                 const SeatSide& side, const Iso3& flatToSide, std::optional<double> clipToSide_mm);

/// Scales the starting lengths down (never up) to fit, rounds them to half millimetres, and centres
/// the structure. `needed_mm(values)` tells the room a structure of these values takes: x away from
/// the fold, y along it (low, high relative to its position).
struct Room {
  double out_mm, low_mm, high_mm;
};
ParameterValues fitToSeat(ParameterTable table, const Seat& seat, const Assembly& assembly,
                          const Settings& settings,
                          Room (*needed_mm)(const ParameterValues&, double shutOpening_rad));

} // namespace hinge
