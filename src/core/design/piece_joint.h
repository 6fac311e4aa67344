// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/parameter.h"
#include "core/design/place_rule.h"
#include "core/geom/polygon.h"
#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace hinge {

/// The words for joints that are made by hand, in files, reports and code, in the order in which
/// both variants have them: these, and those of an assembly (assembly/joint.h).
inline constexpr std::array<std::string_view, 6> kJointKeys{"glue",  "slot", "pivot",
                                                            "slide", "band", "film"};

// What a maker says of a joint, kind by kind. Angles are in degrees, counter-clockwise; `turn` is
// seen on the face, from the line it stands on, `way` on the piece.
namespace given {

/// One on the other: `turn` from the face's x axis to the piece's.
struct Glue {
  double turn_deg = 0;
  bool byFace = false; ///< the side of the piece that meets the face
  Polygon area = {}; ///< the part of the panel that takes the glue, on the piece; empty: all of it
  bool operator==(const Glue&) const = default;
};

/// Half slots pushed into one another along a line that both have. The piece is slit from its point
/// against the way, the face along the turn; lengths of 0 slit as far as both need to meet, others
/// are taken as they are.
struct Slot {
  double turn_deg = 0, way_deg = 90;
  double slit_mm = 0, faceSlit_mm = 0;
  /// The last stretch of the piece's slit before its edge is a bare cut: its lips close behind the
  /// other paper and hold it.
  double catch_mm = 0;
  bool operator==(const Slot&) const = default;
};

/// A pin: the panels lie on one another and turn about the point; at first as glue would lie.
struct Pivot {
  double turn_deg = 0;
  bool byFace = false;
  /// Spun by hand, from where it rests; nobody spins it when both are the same. With a step it
  /// stops at every so many degrees.
  double handFrom_deg = 0, handTo_deg = 0, handStep_deg = 0;
  double over = 0; ///< how many of the things that lie on that side of the face it lies over
  bool operator==(const Pivot&) const = default;
};

/// The panel runs along a line of the face without turning.
struct Slide {
  double turn_deg = 0, way_deg = 90;
  bool byFace = false;
  double least_mm = 0, most_mm = 0; ///< how far it can run before it meets its stops
  /// The way along its line by which the opening pulls the piece, from one opening to the other; no
  /// pull when they are equal.
  double pull_mm = 0, pullFrom_deg = 0, pullTo_deg = 0;
  /// Pulled by hand, from where it rests; nobody pulls it when both are the same.
  double handFrom_mm = 0, handTo_mm = 0, handStep_mm = 0;
  double over = 0; ///< as of a pivot
  bool operator==(const Slide&) const = default;
};

/// An elastic band between the two points: no guide, only a force.
struct Band {
  double length_mm = 40; ///< without force
  bool operator==(const Band&) const = default;
};

/// A strip of film or paper between the two points: slack until it is taut.
struct Film {
  double length_mm = 40;
  bool operator==(const Film&) const = default;
};

using Kind = std::variant<Glue, Slot, Pivot, Slide, Band, Film>;

} // namespace given

/// How a panel of a free piece is joined to something that was there before. `at` is a point of the
/// piece: the panel that holds it is the one joined. `on` is the key of a face ("card/page-a",
/// "s2/panel-1-back"), `to` a point on that face: x along the line on which the face stands, y away
/// from it.
struct PieceJoint {
  Vec2 at = Vec2::Zero();
  std::string on;
  Vec2 to = Vec2::Zero();
  given::Kind kind;
  /// Where it lies, by rules: `to` and the turn are then the numbers to which these came last.
  std::vector<PlaceRule> rules = {};
  std::string extras; ///< members of the file this version does not know, as JSON text
  bool operator==(const PieceJoint&) const = default;
};

template <class Kind> bool is(const PieceJoint& joint) {
  return std::holds_alternative<Kind>(joint.kind);
}

std::string_view jointKey(const given::Kind& kind);

/// One of the numbers that a joint of its kind has.
struct JointNumber {
  std::string_view key; ///< in the file: "turn_deg", "slit_mm"
  double* value = nullptr;
  ParameterUnit unit = ParameterUnit::Degree;
  bool spared = false; ///< 0 is not written
  bool isLength() const { return unit == ParameterUnit::Millimetre; }
};
/// All of them, in the order of the file.
std::vector<JointNumber> numbersOf(given::Kind& kind);
/// Which side of the piece meets the face, where the kind has one; else null.
bool* byFaceOf(given::Kind& kind);
const bool* byFaceOf(const given::Kind& kind);
/// The same joint as another kind, with what both have.
given::Kind changedTo(std::size_t kind, const given::Kind& from);

/// Glue and slide say how the piece lies on the face: its x axis there (unit length), and which of
/// its sides looks away (1 face, -1 back).
struct LiesOn {
  Vec2 x;
  double up = 1;
  Vec2 y() const { return up * Vec2(-x.y(), x.x()); }
};
std::optional<LiesOn> liesOn(const given::Kind& kind);
/// The same of all that lies on the face at first: of pins too.
std::optional<LiesOn> startsAs(const given::Kind& kind);
/// Turns it on the face so that the piece's x axis is at an angle from the face's.
void layAs(given::Kind& kind, double x_rad);

/// The joint of the mirror image, left and right exchanged on the piece and on the face; points are
/// left to the caller, who knows about which line.
given::Kind mirrored(const given::Kind& kind);

/// The joint of a piece that is turned over, left and right, and joined by its other side: the
/// piece lies where it lay. Points are left to the caller.
given::Kind turnedOver(const given::Kind& kind);

} // namespace hinge
