// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/design/design.h"
#include "core/motion/motion.h"
#include <functional>
#include <optional>

namespace hinge {

/// A length that a maker measures and sets: a value in a table, a place across a free sheet that
/// corners and scores share, a point where a piece is joined, a topper's size or place.
struct FreeLength {
  std::string key;   ///< "s3.a", "card.width", "s2.x3" (the third place from the left), "t1.width"
  std::string owner; ///< "s3", "card", "t1"
  Text label;
  double value_mm = 0, least_mm = -1e6, most_mm = 1e6;
  std::function<void(Design&, double)> set; ///< nothing else changes, nor is it checked
};

/// Lengths that belong together, by their places in the list.
struct FreeLengths {
  std::vector<FreeLength> all;
  /// Both the same now, and on both sides of something: they stay so.
  std::vector<std::pair<std::size_t, std::size_t>> twins;
  /// Outer, inner, inner, outer: places across a sheet that is the same from both ends.
  std::vector<std::array<std::size_t, 4>> mirrored;
  /// Next to one another on the same sheet: the second stays above the first.
  std::vector<std::pair<std::size_t, std::size_t>> neighbours;
  /// What is left as it is, and why: the keys of sentences.
  std::vector<std::pair<std::string, Text>> left; ///< owner, reason
};

/// All of a design. Sheets with slanted lines and what turns or slides are left as they are: their
/// sizes hang together by more than sums.
FreeLengths freeLengthsOf(const Design& design);

/// What the rings of the card miss to close with its folds at these angles (three numbers a joint,
/// in the order of the assembly). The list does not grow or shrink as long as folds, joints and
/// panels are the same ones. Nothing for joints that leave freedom, and for panels that nothing but
/// such joints holds.
std::vector<double> ringGaps(const Assembly& assembly,
                             const IndexedVector<FoldIndex, double>& angles_rad,
                             double opening_rad);
/// The angle of every fold at an opening; 0 for what is not there.
IndexedVector<FoldIndex, double> foldAngles(const Motion& motion, double opening_rad);

/// For every glue and every long edge of what it holds on to: how far the tab stays inside of that
/// edge (mm; 0: flush, negative: beyond it).
std::vector<double> glueSlacks(const Assembly& assembly);

} // namespace hinge
