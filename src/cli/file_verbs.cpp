// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/application.h"
#include "cli/cut_verbs.h"
#include "cli/options.h"
#include "cli/report_json.h"
#include "core/io/design_json.h"
#include "core/io/fold_file.h"
#include "core/io/maker_bench.h"
#include "core/io/obj.h"
#include "core/io/page.h"
#include "core/io/text_file.h"
#include "core/model/snapshot.h"
#include "core/paper/sheet_size.h"
#include "render/picture.h"
#include "render/plan_drawings.h"
#include "render/sheets_dxf.h"
#include "render/sheets_pdf.h"
#include "render/sheets_svg.h"
#include "words/tables.h"
#include "words/words.h"
#include <algorithm>
#include <fmt/format.h>

// The verbs that write files made from a design, and the sweep.

namespace hinge {
namespace {

/// Opening at which pictures and models are made when none is asked for.
constexpr double kPictureOpening_deg = 100;

/// A card that can be put together, with its motion.
Result<std::shared_ptr<const Snapshot>> movingCard(const std::string& file) {
  auto d = loadDesign(file);
  if (!d) return d.error();
  auto snapshot = std::make_shared<const Snapshot>(std::move(d).value());
  if (auto possible = snapshot->possible(); !possible) return possible.error();
  snapshot->motion();
  return snapshot;
}

Result<void> writeFold(const Motion& motion, std::optional<double> open_deg,
                       const std::string& path, Replaces replaces) {
  std::vector<double> openings;
  if (open_deg)
    openings.push_back(*open_deg);
  else
    for (double t : foldFrames_deg(motion)) {
      const bool reached = radians(t) >= motion.low_rad() && radians(t) <= motion.high_rad();
      if (reached)
        openings.push_back(t);
      else
        fmt::print(stderr, "hinge-lantern-cli: {}\n", say(Text{"cli.frame-left-out", Degrees{t}}));
    }
  const auto text = motionToFold(motion, openings);
  return text ? writeOutput(path, *text, replaces) : text.error();
}

/// One sheet of a layout.
Result<void> writeSheet(const Options& o, const Snapshot& card) {
  if (o.format == "hpgl") {
    const auto text = sheetAsHpgl(o, card);
    return text ? writeOutput(o.out, *text, o.replaces()) : Result<void>(text.error());
  }
  if (o.format != "svg" && o.format != "dxf") return Error{"layout.sheet-format", "--to"};
  const auto plan = planFor(o, card);
  if (!plan) return plan.error();
  const auto sheet = static_cast<std::size_t>(o.sheetNumber - 1);
  if (sheet >= plan->sheets.size())
    return Error{{"layout.no-sheet", plan->sheets.size(), o.sheetNumber}, "--sheet"};
  if (o.format == "svg") return writeOutput(o.out, sheetToSvg(*plan, sheet), o.replaces());
  const auto drawing = sheetToDxf(*plan, sheet);
  return drawing ? writeOutput(o.out, *drawing, o.replaces()) : drawing.error();
}

Result<void> writeTables(const Options& o, const Snapshot& card) {
  const auto made = tablesFor(o, card);
  if (!made) return made.error();
  const auto read = readTables(made->tables, card.design(), **card.assembly(), made->bench);
  return writeOutput(o.out, o.format == "csv" ? commaSeparated(read) : plainText(read),
                     o.replaces());
}

PdfWishes wishesOf(const Options& o) {
  PdfWishes wishes;
  if (o.prints) wishes.print = o.lines == "under" ? PdfPrint::LinesUnder : PdfPrint::LinesOver;
  wishes.backs = o.backs;
  if (o.only == "sheets") wishes.what = PdfContent::Sheets;
  if (o.only == "tables") wishes.what = PdfContent::Tables;
  if (!o.page.empty())
    wishes.page_mm = Vec2(sheetByKey(o.page).width_mm, sheetByKey(o.page).height_mm);
  return wishes;
}

Result<void> written(const Options& o, const Snapshot& card, std::optional<double> open_deg) {
  if (o.sheetNumber > 0 || o.format == "hpgl") return writeSheet(o, card);
  if (o.format == "csv" || o.format == "txt") return writeTables(o, card);
  const Motion& motion = *card.motion();
  const Design& d = card.design();
  if (o.format == "pdf" || o.format == "png") Application::paint();
  const double open = open_deg.value_or(kPictureOpening_deg);
  if (o.format == "svg") return writeOutput(o.out, piecesToSvg(motion.assembly(), d), o.replaces());
  if (o.format == "dxf") {
    const auto drawing = piecesToDxf(motion.assembly(), d);
    return drawing ? writeOutput(o.out, *drawing, o.replaces()) : drawing.error();
  }
  if (o.format == "pdf") {
    const auto bench = makersBench();
    card.seen(); // for the marks on what nobody sees
    return bench ? writeSheetsPdf(card, *bench, o.out, wishesOf(o), o.replaces())
                 : Result<void>(bench.error());
  }
  if (o.format == "png")
    return writePicture(
        stagePicture(motion, d.card, radians(open), {1200, 900}, lookOf(card), card.inPlane()),
        o.out, o.replaces());
  if (o.format == "fold") return writeFold(motion, open_deg, o.out, o.replaces());
  const auto text = poseToObj(motion, open);
  return text ? writeOutput(o.out, *text, o.replaces()) : text.error();
}

} // namespace

int sweep(const Options& o) {
  if (!(o.step >= 0.01 && o.step <= 180)) return refuse({"usage/step", "--step"});
  const auto card = movingCard(o.file);
  if (!card) return refuse(card.error());
  const auto motion = (*card)->motion();
  std::vector<double> openings;
  for (int k = 0; k * o.step <= 180 + 1e-9; ++k)
    openings.push_back(std::min(180.0, k * o.step));
  if (o.json)
    fmt::print("{}", sweepToJson(**card, openings));
  else
    for (double t : openings)
      fmt::print("{:>7} {}\n", formatNumber(t, 2),
                 say(Text{"cli.residual", unitKey(ParameterUnit::Degree),
                          fmt::format("{:.2e}", motion->poseAt(radians(t)).residual_mm)}));
  return kFine;
}

int exportFile(const Options& o) {
  std::optional<double> open_deg;
  if (o.openGiven) {
    const auto opening = parseOpening_deg(o.open);
    if (!opening) return refuse(opening.error());
    open_deg = *opening;
  }
  if (auto may = mayWriteTo(o.out, {o.file}); !may) return refuse(may.error());
  const auto card = movingCard(o.file);
  if (!card) return refuse(card.error());
  const auto done = written(o, **card, open_deg);
  return done ? kFine : refuse(done.error());
}

int gallery(const Options& o) {
  if (!(o.columns >= 1 && o.columns <= 12)) return refuse({"usage/columns", "--columns"});
  std::optional<double> open_deg;
  if (o.openGiven) {
    const auto opening = parseOpening_deg(o.open);
    if (!opening) return refuse(opening.error());
    open_deg = *opening;
  }
  if (auto may = mayWriteTo(o.out, o.files); !may) return refuse(may.error());
  Application::paint();
  std::vector<std::shared_ptr<const Snapshot>> shown;
  for (const std::string& file : o.files) {
    auto card = movingCard(file);
    if (!card) return refuse(card.error());
    shown.push_back(*card);
  }
  std::vector<GalleryCard> cards;
  for (const auto& card : shown) {
    const Design& design = card->design();
    const auto motion = card->motion();
    const double wanted = radians(open_deg.value_or(design.card.display_deg));
    const double opening = std::clamp(wanted, motion->low_rad(), motion->high_rad());
    cards.push_back({motion.get(), design.card, opening, QString::fromStdString(design.title),
                     lookOf(*card), card->inPlane()});
  }
  const QImage picture = galleryPicture(cards, {o.size, o.size * 3 / 4}, o.columns);
  const auto done = writePicture(picture, o.out, o.replaces());
  return done ? kFine : refuse(done.error());
}

int describePage(const Options& o) {
  auto d = loadDesign(o.file);
  if (!d) return refuse(d.error());
  const std::string page = pageOf(*d);
  if (o.out.empty()) {
    fmt::print("{}", page);
    return kFine;
  }
  if (auto may = mayWriteTo(o.out, {o.file}); !may) return refuse(may.error());
  const auto saved = writeOutput(o.out, page, o.replaces());
  return saved ? kFine : refuse(saved.error());
}

int readPage(const Options& o) {
  if (!o.force && fileExists(o.file)) return refuse({"file.exists", o.file});
  if (auto may = mayWriteTo(o.file, {o.id}); !may) return refuse(may.error());
  const auto text = readFile(o.id);
  if (!text) return refuse(text.error());
  const auto d = designFromPage(*text);
  if (d) return saveEdited(*d, o.file);
  Error error = d.error();
  error.place = error.place.empty() ? o.id : o.id + ": " + error.place;
  return refuse(error);
}

} // namespace hinge
