// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/sheets.h"
#include "core/design/design.h"
#include "core/paper/sheet_size.h"

namespace hinge {

Sheets sheetsFor(const std::vector<FlatPiece>& pieces, const Design& design) {
  const SheetSize& sheet = sheetByKey(design.settings.sheet);
  Sheets sheets{piecesToCut(pieces, design), {}};
  sheets.layout = layOut(sheets.pieces, sheet.width_mm, sheet.height_mm, kSheetMargin_mm,
                         kSheetGap_mm, true, kSheetFooter_mm);
  return sheets;
}

} // namespace hinge
