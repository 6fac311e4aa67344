// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <string_view>

namespace hinge {

/// A sheet that pieces are cut from, portrait; called "sheet.KEY" in words/.
struct SheetSize {
  std::string_view key;
  double width_mm, height_mm;
};

inline const std::array<SheetSize, 4>& knownSheets() {
  static const std::array<SheetSize, 4> all{
      {{"a4", 210, 297}, {"a3", 297, 420}, {"letter", 215.9, 279.4}, {"12x12", 304.8, 304.8}}};
  return all;
}

/// The sheet of that key, or the first one.
inline const SheetSize& sheetByKey(std::string_view key) {
  for (const SheetSize& sheet : knownSheets())
    if (sheet.key == key) return sheet;
  return knownSheets().front();
}

} // namespace hinge
