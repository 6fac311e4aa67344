// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/sheets.h"
#include "core/design/design.h"
#include "core/paper/sheet_size.h"
#include <algorithm>
#include <iterator>

namespace hinge {

Sheets sheetsFor(const std::vector<FlatPiece>& pieces, const Design& design) {
  const SheetSize& sheet = sheetByKey(design.settings.sheet);
  Sheets sheets{piecesToCut(pieces, design), {}};
  // Every paper has sheets of its own, in the order in which it is first needed.
  std::vector<std::string> papers;
  for (const FlatPiece& piece : sheets.pieces)
    if (std::ranges::find(papers, piece.paper) == papers.end()) papers.push_back(piece.paper);
  SheetLayout& all = sheets.layout;
  all.width_mm = sheet.width_mm, all.height_mm = sheet.height_mm, all.margin_mm = kSheetMargin_mm;
  for (const std::string& paper : papers) {
    std::vector<FlatPiece> own;
    std::ranges::copy_if(sheets.pieces, std::back_inserter(own),
                         [&](const FlatPiece& piece) { return piece.paper == paper; });
    SheetLayout layout = layOut(own, sheet.width_mm, sheet.height_mm, kSheetMargin_mm, kSheetGap_mm,
                                true, kSheetFooter_mm);
    for (SheetPlace& place : layout.places) {
      place.sheet += all.sheets;
      all.places.push_back(place);
    }
    all.sheets += layout.sheets;
    all.papers.resize(static_cast<std::size_t>(all.sheets), paper);
  }
  return sheets;
}

} // namespace hinge
