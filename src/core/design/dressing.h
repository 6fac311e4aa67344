// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/region.h"
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace hinge {

/// Which way up a pattern lies on a face: upright as the card is displayed, along the line on which
/// the face stands, or turned by an angle from that.
enum class PatternTurn { Upright, AlongFold, Angle };

/// One layer of a stack: paper cut to the shape of the face less a border, which is measured from
/// the layer below.
struct Layer {
  std::string paper; ///< key in the drawer
  /// Borders in mm. None: the usual one of the settings, half of it on narrow panels. One: all
  /// round. Four: at the foot of the face, at its right, its top and its left, as it is looked at.
  std::vector<double> border_mm = {};
  CornerStyle corners = CornerStyle::Sharp;
  PatternTurn turn = PatternTurn::Upright;
  double angle_deg = 0; ///< PatternTurn::Angle: counter-clockwise from the line it stands on
  bool operator==(const Layer&) const = default;
};

/// Where other pieces are glued onto a face: they are glued onto the stack, the stack lies over
/// their tabs and hides them, or it leaves them out.
enum class AtGlue { Under, Over, Around };

/// Which faces a rule is for, seen from the one it names: that face, it and its mirror twin, all
/// that do the same work in its structure, all of the same outline; or, without a face, all that
/// are seen on display, all that are seen at all, every one.
enum class DressReach { Face, Twins, Part, Alike, Displayed, Seen, All };
constexpr bool namesFace(DressReach reach) {
  return reach < DressReach::Displayed;
}

/// What faces wear. A later rule takes the place of an earlier one; one without layers bares them.
struct DressRule {
  DressReach reach = DressReach::Face;
  std::string face; ///< key of the seat on that face; empty for those that name none
  AtGlue atGlue = AtGlue::Under;
  std::vector<Layer> layers;
  bool operator==(const DressRule&) const = default;
};

struct Dressing {
  std::vector<DressRule> rules;
  bool operator==(const Dressing&) const = default;
  bool empty() const { return rules.empty(); }
};

/// Whether a rule is meant by what is seen.
bool asksForSight(const Dressing& dressing);

/// The words of files and of the command line.
std::string_view keyOf(DressReach reach);
std::string_view keyOf(AtGlue how);
std::string_view keyOf(PatternTurn turn);
std::optional<DressReach> dressReachFromKey(std::string_view key);
std::optional<AtGlue> atGlueFromKey(std::string_view key);
std::optional<PatternTurn> patternTurnFromKey(std::string_view key);

} // namespace hinge
