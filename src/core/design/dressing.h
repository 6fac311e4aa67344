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

/// How a topper is held: glued flat on the face, on pads that raise it, or on a strip that gives
/// way when the card shuts.
enum class TopperFix { Flat, Pads, Spring };

/// A rigid shape of its own paper on a face. It is placed by its middle, in the frame of the face.
struct Topper {
  int id = 1;        ///< printed "t1"
  std::string face;  ///< key of the seat on that face
  std::string shape; ///< in topperShapes(), or kLettering, or kOwnShape
  double width_mm = 30, height_mm = 30;
  double detail = 0.5;          ///< 0 to 1: what its shape makes of it
  std::string text;             ///< lettering
  std::vector<Region> outlines; ///< of lettering and own shapes, in mm about the middle
  std::string paper;
  std::optional<Layer> mat; ///< behind it, larger by its border
  Vec2 at = Vec2::Zero();
  double turn_deg = 0; ///< anticlockwise
  bool mirrored = false;
  TopperFix fix = TopperFix::Flat;
  double raised_mm = 2; ///< on pads or a strip, when the card is open
  std::string name() const { return "t" + std::to_string(id); }
  bool operator==(const Topper&) const = default;
};
constexpr std::string_view kLettering = "lettering", kOwnShape = "own";
constexpr double kMostRaised_mm = 30, kLeastTopper_mm = 2, kLargestTopper_mm = 500;

struct Dressing {
  std::vector<DressRule> rules;
  std::vector<Topper> toppers;
  bool operator==(const Dressing&) const = default;
  bool empty() const { return rules.empty() && toppers.empty(); }
  const Topper* find(int id) const;
  int nextTopper() const; ///< a number that none has
};

/// Whether a rule is meant by what is seen.
bool asksForSight(const Dressing& dressing);

/// The words of files and of the command line.
std::string_view keyOf(DressReach reach);
std::string_view keyOf(AtGlue how);
std::string_view keyOf(PatternTurn turn);
std::string_view keyOf(TopperFix fix);
std::optional<TopperFix> topperFixFromKey(std::string_view key);
std::optional<DressReach> dressReachFromKey(std::string_view key);
std::optional<AtGlue> atGlueFromKey(std::string_view key);
std::optional<PatternTurn> patternTurnFromKey(std::string_view key);

} // namespace hinge
