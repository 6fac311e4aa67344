// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/geom/polygon.h"
#include "core/paper/colour.h"
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace hinge {

/// Whether a printed paper has an upright: none (it may be turned as it fits), one way (it may not
/// be turned at all), or both ways (upside down is as good).
enum class PatternWay { None, Along, Both };

/// What is printed on the face side of a paper: one of our own patterns, drawn at true scale.
struct Print {
  std::string key;          ///< in knownPatterns()
  double repeat_mm = 12;    ///< after which it comes again, across
  double share = 0.5;       ///< how much of it is inked, 0.1 to 0.9
  std::vector<Colour> inks; ///< one or two
  bool operator==(const Print&) const = default;
};

/// One repeat of a pattern: shapes in a box from (0, 0), y up, which lies beside itself in rows.
/// Shapes may reach over its edges and come in again on the other side.
struct PatternTile {
  struct Shape {
    Polygon outline;
    std::size_t ink = 0;
  };
  double width_mm = 0, height_mm = 0;
  std::vector<Shape> shapes;
};

/// How one pattern is drawn; called "pattern.KEY" in words/.
struct PatternKind {
  std::string_view key;
  PatternWay way;
  double usualRepeat_mm;
  std::size_t inks;
  PatternTile (*tile)(double repeat_mm, double share);
};

constexpr double kLeastRepeat_mm = 2, kLargestRepeat_mm = 100;
constexpr double kLeastShare = 0.1, kLargestShare = 0.9;

std::span<const PatternKind> knownPatterns();
const PatternKind* findPattern(std::string_view key);

/// The repeat of a print whose pattern is known.
PatternTile tileOf(const Print& print);

} // namespace hinge
