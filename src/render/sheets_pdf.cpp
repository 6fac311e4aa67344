// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/sheets_pdf.h"
#include "core/io/text_file.h"
#include "core/production/sheets.h"
#include "render/flat_painter.h"
#include <QBuffer>
#include <QCoreApplication>
#include <QPageSize>
#include <QPdfWriter>
#include <cmath>

namespace hinge {
namespace {

constexpr double kMargin_mm = kSheetMargin_mm, kFooter_mm = kSheetFooter_mm, kOverlap_mm = 8;
constexpr int kDotsPerInch = 1200;
constexpr double kDotsPerMm = kDotsPerInch / kMillimetresPerInch;

struct SheetTexts {
  Q_DECLARE_TR_FUNCTIONS(hinge::SheetTexts)
};

QFont fontOf(double size_mm) {
  QFont font(QStringLiteral("Lato"));
  font.setPixelSize(std::max(1, static_cast<int>(size_mm * kDotsPerMm)));
  return font;
}

/// Painter in millimetres would lose thin pens and fonts to rounding; everything is mapped to dots
/// explicitly.
QPointF dots(double x_mm, double y_mm) {
  return {x_mm * kDotsPerMm, y_mm * kDotsPerMm};
}

void paintRuler(QPainter& painter, double x, double y, const Theme& theme) {
  painter.setPen(QPen(theme.cut, 0.2 * kDotsPerMm));
  painter.drawLine(dots(x, y), dots(x + 100, y));
  for (int k = 0; k <= 100; k += 5)
    painter.drawLine(dots(x + k, y), dots(x + k, y - (k % 50 == 0   ? 3.5
                                                      : k % 10 == 0 ? 2.4
                                                                    : 1.2)));
  painter.setFont(fontOf(2.8));
  painter.drawText(dots(x + 102, y),
                   SheetTexts::tr("must measure %1: print at full size, not fitted to the page")
                       .arg(QStringLiteral("100 mm")));
}

void paintCross(QPainter& painter, double x, double y, const Theme& theme) {
  painter.setPen(QPen(theme.mark, 0.15 * kDotsPerMm));
  painter.drawLine(dots(x - 3, y), dots(x + 3, y));
  painter.drawLine(dots(x, y - 3), dots(x, y + 3));
}

/// The pages of a document, painted one after another.
class SheetsPainter {
public:
  SheetsPainter(const Assembly& assembly, const Design& design, QPdfWriter& writer,
                QPainter& painter)
      : m_assembly(assembly), m_design(design),
        m_sheets(sheetsFor(flatPieces(assembly, design.cardPaper().thickness_mm), design)),
        m_writer(writer), m_painter(painter) {
    m_style.fillSheet = false;
    m_style.lineWidth_px = 0.25 * kDotsPerMm;
  }

  void run() {
    for (int sheet = 0; sheet < m_layout.sheets; ++sheet)
      paintSheet(sheet);
    if (!m_withoutRuler) return;
    startPage();
    footer(SheetTexts::tr("%1  ruler for the sheets that are printed to the edge").arg(title()));
  }

private:
  using Places = std::vector<const SheetPlace*>;

  QString title() const { return QString::fromStdString(m_design.title); }
  const FlatPiece& pieceOf(const SheetPlace& place) const {
    return *std::ranges::find(m_pieces, place.piece, &FlatPiece::piece);
  }
  double usableX_mm() const { return m_layout.width_mm - 2 * kMargin_mm; }
  double usableY_mm() const { return m_layout.height_mm - kFooter_mm - 2 * kMargin_mm; }

  void startPage() {
    if (m_page++ > 0) m_writer.newPage();
  }
  void footer(const QString& text) {
    paintRuler(m_painter, kMargin_mm, m_layout.height_mm - 8, m_style.theme);
    m_painter.setPen(m_style.theme.cut);
    m_painter.setFont(fontOf(2.8));
    m_painter.drawText(dots(kMargin_mm, m_layout.height_mm - 3.5), text);
  }

  void paintSheet(int sheet) {
    Places here;
    Box2 extent;
    for (const SheetPlace& place : m_layout.places) {
      if (place.sheet != sheet) continue;
      here.push_back(&place);
      for (const Vec2& p : {pieceOf(place).bounds.low, pieceOf(place).bounds.high})
        extent.add(place.onSheet(p));
    }
    const auto tiles = [](double size, double usable) {
      const double step = usable - kOverlap_mm;
      return size <= usable ? 1 : 1 + static_cast<int>(std::ceil((size - usable) / step));
    };
    const bool tiled = here.front()->oversize;
    const int nx = tiled ? tiles(extent.size().x(), usableX_mm()) : 1;
    const int ny = tiled ? tiles(extent.size().y(), usableY_mm()) : 1;
    for (int iy = 0; iy < ny; ++iy)
      for (int ix = 0; ix < nx; ++ix) {
        startPage();
        paintTile(here, ix, iy);
        QString text =
            SheetTexts::tr("%1  sheet %2 of %3").arg(title()).arg(sheet + 1).arg(m_layout.sheets);
        if (nx * ny > 1) {
          paintCrosses();
          text = SheetTexts::tr("%1, part %2 of %3: join at the crosses")
                     .arg(text)
                     .arg(iy * nx + ix + 1)
                     .arg(nx * ny);
        }
        // A piece that takes the whole sheet leaves no place for ruler and name.
        const bool whole = here.front()->toTheEdge;
        if (!whole) footer(text);
        m_withoutRuler = m_withoutRuler || whole;
      }
  }

  void paintTile(const Places& here, int ix, int iy) {
    const double shiftX = ix * (usableX_mm() - kOverlap_mm);
    const double shiftY = iy * (usableY_mm() - kOverlap_mm);
    const double width = m_layout.width_mm, height = m_layout.height_mm - kFooter_mm;
    m_painter.save();
    if (!here.front()->toTheEdge)
      m_painter.setClipRect(QRectF(dots(kMargin_mm - 1, kMargin_mm - 1),
                                   dots(width - kMargin_mm + 1, height - kMargin_mm + 1)));
    for (const SheetPlace* place : here) {
      const QTransform transform = transformAt(*place, shiftX, shiftY);
      paintFlatPiece(m_painter, m_assembly, pieceOf(*place), transform, m_style);
      paintLabels(m_painter, m_design, m_assembly, pieceOf(*place), transform, kDotsPerMm,
                  m_style.theme.mark);
    }
    m_painter.restore();
  }

  /// A sheet has its y upwards, paper downwards.
  QTransform transformAt(const SheetPlace& place, double shiftX, double shiftY) const {
    const QTransform toSheet = place.turned
                                   ? QTransform(0, 1, -1, 0, place.offset.x(), place.offset.y())
                                   : QTransform(1, 0, 0, 1, place.offset.x(), place.offset.y());
    return toSheet * QTransform(kDotsPerMm, 0, 0, -kDotsPerMm, -shiftX * kDotsPerMm,
                                (m_layout.height_mm - kFooter_mm + shiftY) * kDotsPerMm);
  }

  void paintCrosses() {
    const double half = kMargin_mm + 0.5 * kOverlap_mm;
    for (double x : {half, m_layout.width_mm - half})
      for (double y : {half, m_layout.height_mm - kFooter_mm - half})
        paintCross(m_painter, x, y, m_style.theme);
  }

  const Assembly& m_assembly;
  const Design& m_design;
  const Sheets m_sheets;
  const std::vector<FlatPiece>& m_pieces = m_sheets.pieces;
  const SheetLayout& m_layout = m_sheets.layout;
  QPdfWriter& m_writer;
  QPainter& m_painter;
  FlatStyle m_style;
  int m_page = 0;
  bool m_withoutRuler = false;
};

} // namespace

Result<void> writeSheetsPdf(const Assembly& assembly, const Design& design,
                            const std::string& path) {
  const SheetSize& sheet = sheetByKey(design.settings.sheet);
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(QSizeF(sheet.width_mm, sheet.height_mm), QPageSize::Millimeter,
                                 QString(), QPageSize::ExactMatch));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    writer.setResolution(kDotsPerInch);
    writer.setTitle(QString::fromStdString(design.title));
    writer.setCreator(QStringLiteral("Hinge Lantern"));
    QPainter painter(&writer);
    SheetsPainter(assembly, design, writer, painter).run();
  }
  return writeFile(path, std::string_view(buffer.data().constData(),
                                          static_cast<std::size_t>(buffer.data().size())));
}

} // namespace hinge
