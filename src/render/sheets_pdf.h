// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/io/text_file.h"
#include "core/model/snapshot.h"
#include "core/production/cut_plan.h"
#include <QPainter>
#include <QPdfWriter>
#include <optional>
#include <string>

namespace hinge {

enum class PdfContent { All, Sheets, Tables };
/// Of those who print their papers: nothing printed but lines; lines on the print; lines beneath
/// it, with marks beside it, so that none stays on the card.
enum class PdfPrint { LinesAlone, LinesOver, LinesUnder };

struct PdfWishes {
  PdfContent what = PdfContent::All;
  PdfPrint print = PdfPrint::LinesAlone;
  bool backs = false; ///< after each sheet its back, mirrored, for both sides of a page
  std::optional<Vec2> page_mm = {}; ///< of the printer, when it is smaller than the sheets
};

/// The layout of sheets that a printer prints: inside of its margins, above a ruler.
constexpr double kPrinterMargin_mm = 10, kPrinterFooter_mm = 14;
LayoutOptions printedOptions();

/// Everything of one card on the sheets that are printed: what bleeds or has marks beside it needs
/// more room in between.
CutPlan printedPlan(const Snapshot& snapshot, PdfPrint print = PdfPrint::LinesAlone,
                    std::stop_token stop = {});

/// Cutting sheets at 1:1: pieces and layers of each paper nested on its sheets, inside of a margin
/// that printers leave. Sheets and parts larger than the printer's page are tiled over several
/// with 8 mm overlap and crosses to join them by; every page has a ruler of exactly 100 mm and
/// 4 in to check the printer's scale. Prints go 3 mm past the cuts. Panels whose face nobody sees
/// have an X when it is known by now what is seen (see Snapshot::seen). Then a legend of the
/// letters, and the score and cut tables. Written beside the target and moved into place.
Result<void> writeSheetsPdf(const Snapshot& snapshot, const Bench& bench, const std::string& path,
                            const PdfWishes& wishes = {}, Replaces replaces = Replaces::SameKind);

/// The same as further pages of a document, each with its own size.
void appendSheets(QPdfWriter& writer, QPainter& painter, const Snapshot& snapshot,
                  const Bench& bench);

} // namespace hinge
