// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/sheets_pdf.h"
#include "core/io/text_file.h"
#include "core/paper/sheet_size.h"
#include "render/print_dots.h"
#include "render/sheet_print.h"
#include "render/table_pages.h"
#include "words/words.h"
#include <QBuffer>
#include <QCoreApplication>
#include <QPageSize>
#include <QPdfWriter>
#include <algorithm>
#include <cmath>
#include <iterator>

namespace hinge {
namespace {

constexpr double kMargin_mm = kPrinterMargin_mm, kFooter_mm = kPrinterFooter_mm, kOverlap_mm = 8;

struct SheetTexts {
  Q_DECLARE_TR_FUNCTIONS(hinge::SheetTexts)
};

void paintRuler(QPainter& painter, double x, double y, const Theme& theme) {
  painter.setPen(QPen(theme.cut, 0.2 * kDotsPerMm));
  painter.drawLine(dots(x, y), dots(x + 4 * kMillimetresPerInch, y));
  for (int k = 0; k <= 100; k += 5)
    painter.drawLine(dots(x + k, y), dots(x + k, y - (k % 50 == 0   ? 3.5
                                                      : k % 10 == 0 ? 2.4
                                                                    : 1.2)));
  for (int k = 0; k <= 32; ++k) {
    const double at = x + k * kMillimetresPerInch / 8;
    painter.drawLine(dots(at, y), dots(at, y + (k % 8 == 0 ? 2.4 : k % 4 == 0 ? 1.7 : 0.9)));
  }
  painter.setFont(fontOf(2.8));
  painter.drawText(dots(x + 104, y),
                   SheetTexts::tr("must measure %1 above and %2 below: print at full size")
                       .arg(QStringLiteral("100 mm"), QStringLiteral("4 in")));
}

void paintCross(QPainter& painter, double x, double y, const Theme& theme) {
  painter.setPen(QPen(theme.mark, 0.15 * kDotsPerMm));
  painter.drawLine(dots(x - 3, y), dots(x + 3, y));
  painter.drawLine(dots(x, y - 3), dots(x, y + 3));
}

/// A part by itself, in the frame of a drawing that begins at its lower left corner.
LaidSheet alone(const CutPlan& plan, std::size_t part) {
  LaidSheet sheet{plan.parts[part].paper,
                  plan.parts[part].size().x(),
                  plan.parts[part].size().y(),
                  {{part, 0, Vec2::Zero(), false}},
                  {}};
  sheet.places[0].offset = -plan.parts[part].flat.bounds.low;
  return sheet;
}

/// The pages of a document, painted one after another. The first page of all has its size already.
class SheetsPainter {
public:
  SheetsPainter(const Snapshot& snapshot, const CutPlan& plan, const PdfWishes& wishes,
                const Vec2& usual_mm, QPdfWriter& writer, QPainter& painter, int pages = 0)
      : m_design(snapshot.design()), m_assembly(**snapshot.assembly()), m_writer(writer),
        m_painter(painter), m_plan(plan), m_wishes(wishes), m_usual_mm(usual_mm),
        m_page_mm(usual_mm), m_pages(pages) {
    m_style.lines.fillSheet = false;
    m_style.lines.lineWidth_px = 0.25 * kDotsPerMm;
    m_style.papers = false;
    m_style.pixelsPerMm = kDotsPerMm;
    if (const auto seen = snapshot.seenIfReady())
      m_style.unseen = unseenFaces(*snapshot.faces(), *seen);
  }

  void run() {
    for (std::size_t k = 0; k < m_plan.sheets.size(); ++k) {
      const LaidSheet& sheet = m_plan.sheets[k];
      const QString name = SheetTexts::tr("%1  sheet %2 of %3  %4")
                               .arg(title())
                               .arg(k + 1)
                               .arg(m_plan.sheets.size())
                               .arg(paperName(sheet.paper));
      const Vec2 size(sheet.width_mm, sheet.height_mm);
      if (m_wishes.page_mm && (size - m_usual_mm).maxCoeff() > 0.5) {
        paintTiles(sheet, size, name);
        continue;
      }
      startPage(size);
      paintParts(sheet, 0, 0);
      footer(name);
      if (m_wishes.backs) paintBack(sheet, name);
    }
    for (std::size_t part : m_plan.tooLarge)
      paintLarge(part);
  }

private:
  QString title() const { return QString::fromStdString(m_design.title); }
  QString paperName(const std::string& key) const {
    return QString::fromStdString(say(nameOf(m_design.paperNamed(key))));
  }

  void startPage(const Vec2& size_mm) {
    m_page_mm = size_mm;
    if (m_pages++ == 0) return;
    m_writer.setPageSize(exactPage(size_mm));
    m_writer.newPage();
  }
  void footer(const QString& text) {
    paintRuler(m_painter, kMargin_mm, m_page_mm.y() - 9, m_style.lines.theme);
    m_painter.setPen(m_style.lines.theme.cut);
    m_painter.setFont(fontOf(2.8));
    m_painter.drawText(dots(kMargin_mm, m_page_mm.y() - 3), text);
  }

  /// A sheet has its y upwards, paper downwards; what lies at (right, up) comes to the page's lower
  /// left corner.
  void paintParts(const LaidSheet& sheet, double right_mm, double up_mm) {
    const QTransform toDots(kDotsPerMm, 0, 0, -kDotsPerMm, -right_mm * kDotsPerMm,
                            (m_page_mm.y() + up_mm) * kDotsPerMm);
    for (const PartPlace& place : sheet.places) {
      const CutPart& part = m_plan.parts[place.part];
      switch (m_wishes.print) {
      case PdfPrint::LinesAlone:
        paintPart(m_painter, m_assembly, m_design, part, place, false, toDots, m_style);
        break;
      case PdfPrint::LinesOver:
        paintPrint(m_painter, m_design, part, place, false, toDots, kPrintDotsPerMm);
        paintCutLines(m_painter, part, place, toDots, m_style.lines);
        break;
      case PdfPrint::LinesUnder:
        paintCutLines(m_painter, part, place, toDots, m_style.lines);
        paintPrint(m_painter, m_design, part, place, false, toDots, kPrintDotsPerMm);
        paintTicks(m_painter, part, place, toDots, m_style.lines);
        break;
      }
    }
    if (!m_wishes.backs) return;
    for (double x : {0.5 * kMargin_mm, m_page_mm.x() - 0.5 * kMargin_mm})
      paintCross(m_painter, x, 0.5 * m_page_mm.y(), m_style.lines.theme);
  }

  /// The other side of the page that came before, turned over about its upright edge. The crosses
  /// of both lie on one another when the printer holds its place.
  void paintBack(const LaidSheet& sheet, const QString& name) {
    startPage(m_page_mm);
    const QTransform toDots(-kDotsPerMm, 0, 0, -kDotsPerMm, m_page_mm.x() * kDotsPerMm,
                            m_page_mm.y() * kDotsPerMm);
    for (const PartPlace& place : sheet.places) {
      const CutPart& part = m_plan.parts[place.part];
      if (m_wishes.print != PdfPrint::LinesAlone)
        paintPrint(m_painter, m_design, part, place, true, toDots, kPrintDotsPerMm);
      if (m_wishes.print != PdfPrint::LinesUnder)
        paintCutLines(m_painter, part, place, toDots, m_style.lines);
    }
    for (double x : {0.5 * kMargin_mm, m_page_mm.x() - 0.5 * kMargin_mm})
      paintCross(m_painter, x, 0.5 * m_page_mm.y(), m_style.lines.theme);
    footer(SheetTexts::tr("%1, back").arg(name));
  }

  /// A part that leaves no margin: to the edge of one sheet, or over several with crosses.
  void paintLarge(std::size_t part) {
    const Vec2 page = m_usual_mm, size = m_plan.parts[part].size();
    LaidSheet sheet = alone(m_plan, part);
    const bool turned = size.x() > page.x() && size.y() <= page.x() && size.x() <= page.y();
    if (turned) {
      sheet.places[0].quarters = 1;
      sheet.places[0].offset = Vec2::Zero();
      sheet.places[0].offset = -boxOnSheet(m_plan.parts[part], sheet.places[0]).low;
    }
    const Vec2 lies = turned ? Vec2(size.y(), size.x()) : size;
    if (lies.x() <= page.x() + 1e-6 && lies.y() <= page.y() + 1e-6) {
      startPage(page);
      paintParts(sheet, 0.5 * (lies.x() - page.x()), 0.5 * (lies.y() - page.y()));
      m_withoutRuler = true;
      return;
    }
    paintTiles(sheet, lies, SheetTexts::tr("%1, %2").arg(title(), paperName(sheet.paper)));
  }

  /// A sheet that is larger than the printer's page, over several with crosses.
  void paintTiles(const LaidSheet& sheet, const Vec2& lies, const QString& name) {
    const Vec2 page = m_usual_mm;
    const Vec2 usable(page.x() - 2 * kMargin_mm, page.y() - kFooter_mm - 2 * kMargin_mm);
    const auto tiles = [](double whole, double room) {
      return whole <= room ? 1
                           : 1 + static_cast<int>(std::ceil((whole - room) / (room - kOverlap_mm)));
    };
    const int nx = tiles(lies.x(), usable.x()), ny = tiles(lies.y(), usable.y());
    for (int iy = 0; iy < ny; ++iy)
      for (int ix = 0; ix < nx; ++ix) {
        startPage(page);
        paintTile(sheet, Vec2(ix * (usable.x() - kOverlap_mm), iy * (usable.y() - kOverlap_mm)),
                  usable);
        footer(SheetTexts::tr("%1, part %2 of %3: join at the crosses")
                   .arg(name)
                   .arg(iy * nx + ix + 1)
                   .arg(nx * ny));
      }
  }

  void paintTile(const LaidSheet& sheet, const Vec2& from, const Vec2& usable) {
    const double left = kMargin_mm, bottom = kMargin_mm + kFooter_mm;
    m_painter.save();
    m_painter.setClipRect(QRectF(dots(left - 1, m_page_mm.y() - bottom - usable.y() - 1),
                                 dots(left + usable.x() + 1, m_page_mm.y() - bottom + 1)));
    paintParts(sheet, from.x() - left, from.y() - bottom);
    m_painter.restore();
    const double half = 0.5 * kOverlap_mm;
    for (double x : {left + half, left + usable.x() - half})
      for (double y : {bottom + half, bottom + usable.y() - half})
        paintCross(m_painter, x, m_page_mm.y() - y, m_style.lines.theme);
  }

public:
  /// A page with nothing but the ruler, when a part left no place for one.
  void ruler() {
    if (!m_withoutRuler) return;
    startPage(m_usual_mm);
    footer(SheetTexts::tr("%1  ruler for the sheets that are printed to the edge").arg(title()));
  }

private:
  const Design& m_design;
  const Assembly& m_assembly;
  QPdfWriter& m_writer;
  QPainter& m_painter;
  const CutPlan& m_plan;
  const PdfWishes& m_wishes;
  Vec2 m_usual_mm; ///< of the printer
  SheetStyle m_style;
  Vec2 m_page_mm;
  int m_pages; ///< that are there already
  bool m_withoutRuler = false;
};

/// The legend of letters, then a table for each distinct piece.
std::vector<ReadTable> tablesOf(const Snapshot& snapshot, const CutPlan& plan, const Bench& bench) {
  const Design& design = snapshot.design();
  const Assembly& assembly = **snapshot.assembly();
  const auto tables = scoreTables(assembly, design, *snapshot.flatPieces(), bench);
  std::vector<ReadTable> all{legendTable(tables, plan, design, assembly, bench)};
  std::ranges::move(readTables(tables, design, assembly, bench), std::back_inserter(all));
  return all;
}

} // namespace

LayoutOptions printedOptions() {
  LayoutOptions options;
  options.margin_mm = kMargin_mm, options.footer_mm = kFooter_mm, options.gap_mm = 4;
  options.unlimited = true;
  return options;
}

CutPlan printedPlan(const Snapshot& snapshot, PdfPrint print, std::stop_token stop) {
  LayoutOptions options = printedOptions();
  if (print == PdfPrint::LinesOver) options.gap_mm = 2 * kBleed_mm + 1;
  if (print == PdfPrint::LinesUnder) options.gap_mm = 2 * (kBleed_mm + kTick_mm) + 1;
  const Design& design = snapshot.design();
  return layOutParts(design,
                     partsToCut(design, *snapshot.cutPieces(), matList(design, *snapshot.dressed()),
                                1, design.settings.slice),
                     options, stop);
}

Result<void> writeSheetsPdf(const Snapshot& snapshot, const Bench& bench, const std::string& path,
                            const PdfWishes& wishes, Replaces replaces) {
  const auto assembly = snapshot.assembly();
  if (!assembly) return assembly.error();
  const Design& design = snapshot.design();
  const SheetSize& sheet = sheetByKey(design.settings.sheet);
  const Vec2 usual = wishes.page_mm.value_or(Vec2(sheet.width_mm, sheet.height_mm));
  const CutPlan plan = printedPlan(snapshot, wishes.print);
  const bool sheets = wishes.what != PdfContent::Tables;
  const bool first = sheets && !plan.sheets.empty() && !wishes.page_mm;
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setPageSize(exactPage(
        first ? Vec2(plan.sheets.front().width_mm, plan.sheets.front().height_mm) : usual));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    writer.setResolution(kDotsPerInch);
    writer.setTitle(QString::fromStdString(design.title));
    writer.setCreator(QStringLiteral("Hinge Lantern"));
    QPainter painter(&writer);
    if (sheets) {
      SheetsPainter pages(snapshot, plan, wishes, usual, writer, painter);
      pages.run();
      pages.ruler();
    }
    if (wishes.what != PdfContent::Sheets)
      paintTables(writer, painter, usual, QString::fromStdString(design.title),
                  tablesOf(snapshot, plan, bench), !sheets);
  }
  return writeOutput(
      path,
      std::string_view(buffer.data().constData(), static_cast<std::size_t>(buffer.data().size())),
      replaces);
}

void appendSheets(QPdfWriter& writer, QPainter& painter, const Snapshot& snapshot,
                  const Bench& bench) {
  const SheetSize& sheet = sheetByKey(snapshot.design().settings.sheet);
  const Vec2 usual(sheet.width_mm, sheet.height_mm);
  const PdfWishes wishes;
  const CutPlan plan = printedPlan(snapshot, wishes.print);
  SheetsPainter pages(snapshot, plan, wishes, usual, writer, painter, 1);
  pages.run();
  pages.ruler();
  paintTables(writer, painter, usual, QString::fromStdString(snapshot.design().title),
              tablesOf(snapshot, plan, bench));
}

} // namespace hinge
