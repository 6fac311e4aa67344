// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/sheet_edge.h"
#include <functional>
#include <string>
#include <variant>

namespace hinge {

// How a maker says where paper comes to lie, in place of two coordinates: by lines of the paper and
// lines of what lies below it. Rules are kept with the joint and hold when sizes change
// (pieces/placing.h works out the numbers).
namespace placed {

/// A fold of the panel below by its key, "gutter" or "s3/ridge"; empty: the only one that it has.
struct FoldBelow {
  std::string key;
  bool operator==(const FoldBelow&) const = default;
};
/// A line of the panel below: what bounds it on a side (an edge or a fold), or a fold.
using LineBelow = std::variant<SheetEdge, FoldBelow>;

/// A line of the panel that is joined: a side of it, or the edge or score nearest to a point of its
/// sheet. Neither: the joint's own point.
using OwnLine = std::variant<std::monostate, SheetEdge, Vec2>;

/// The own line lies so far from the line below, on the side of the paper below (negative: beyond
/// it), and the panel goes on from there; `upTo`: it ends there.
struct Distance {
  OwnLine own;
  double distance_mm = 0;
  bool upTo = false;
  LineBelow from;
  bool operator==(const Distance&) const = default;
};

/// The middle of the panel is over the middle of the line below, along it.
struct Centred {
  LineBelow on;
  bool operator==(const Centred&) const = default;
};

/// One of a number of equal panels along a line, with equal gaps between them and at both ends,
/// counted from its left or lower end.
struct Spaced {
  double which = 1, of = 2;
  LineBelow on;
  bool operator==(const Spaced&) const = default;
};

/// As far along the folds between both faces as another joint of the piece, named by a point of its
/// panel: the piece crosses them square.
struct Level {
  Vec2 with = Vec2::Zero();
  bool operator==(const Level&) const = default;
};

/// As another joint of the piece, on the other side of the fold between both faces.
struct Mirrored {
  Vec2 of = Vec2::Zero();
  bool operator==(const Mirrored&) const = default;
};

} // namespace placed

using PlaceRule = std::variant<placed::Distance, placed::Centred, placed::Spaced, placed::Level,
                               placed::Mirrored>;

/// The line below that a rule names; null where it names none.
const placed::LineBelow* lineBelow(const PlaceRule& rule);
placed::LineBelow* lineBelow(PlaceRule& rule);

/// Calls `change` for every point of the piece that a rule names.
void eachPoint(PlaceRule& rule, const std::function<void(Vec2&)>& change);
/// The rule of the piece with left and right exchanged; what lies below stays as it is.
PlaceRule mirrored(const PlaceRule& rule);

} // namespace hinge
