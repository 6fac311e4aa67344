// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <string>
#include <string_view>

namespace hinge {

/// A paper or board. Thickness drives clearances, weight the stand; the colour is only for
/// pictures.
struct Stock {
  std::string key = "card-220";
  std::string label = "Card 220 gsm"; ///< as the file names it; shown is "stock.KEY" of words/
  double thickness_mm = 0.27;
  double weight_gsm = 220;
  bool operator==(const Stock&) const = default;
};

/// Generic stocks to choose from; the second one is what a new card starts with.
inline const std::array<Stock, 5>& knownStocks() {
  static const std::array<Stock, 5> all{{{"card-160", "Text-weight card 160 gsm", 0.20, 160},
                                         {"card-220", "Card 220 gsm", 0.27, 220},
                                         {"board-300", "Board 300 gsm", 0.35, 300},
                                         {"patterned-120", "Patterned paper 120 gsm", 0.15, 120},
                                         {"film-140", "Clear film", 0.10, 140}}};
  return all;
}

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
