// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/paper/pattern.h"
#include "core/paper/patterns/shapes.h"
#include <algorithm>

namespace hinge {

std::span<const PatternKind> knownPatterns() {
  using enum PatternWay;
  using namespace patterns;
  static const PatternKind all[] = {
      {"stripes", Both, 10, 1, &stripes},   {"dots", None, 8, 1, &dots},
      {"lattice", Both, 7, 1, &lattice},    {"waves", Both, 12, 1, &waves},
      {"lanterns", Both, 20, 2, &lanterns}, {"planks", Both, 7, 1, &planks},
      {"tiles", None, 7, 2, &tiles},        {"night-sky", Along, 30, 2, &nightSky},
      {"bricks", Both, 10, 1, &bricks},     {"scales", Along, 9, 1, &scales},
      {"reeds", Along, 14, 2, &reeds},      {"pennants", Along, 12, 2, &pennants}};
  return all;
}

const PatternKind* findPattern(std::string_view key) {
  const auto all = knownPatterns();
  const auto found = std::ranges::find(all, key, &PatternKind::key);
  return found == all.end() ? nullptr : &*found;
}

PatternTile tileOf(const Print& print) {
  return findPattern(print.key)->tile(print.repeat_mm, print.share);
}

} // namespace hinge
