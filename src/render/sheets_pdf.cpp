#include "render/sheets_pdf.h"
#include "core/checks/finding.h"
#include "core/io/text_file.h"
#include "core/production/slices.h"
#include "render/flat_painter.h"
#include <QBuffer>
#include <QPageSize>
#include <QPdfWriter>
#include <cmath>

namespace hinge {
namespace {

constexpr double kMargin_mm = 10, kFooter_mm = 14, kOverlap_mm = 8, kGap_mm = 6;
constexpr int kDotsPerInch = 1200;
constexpr double kDotsPerMm = kDotsPerInch / kMillimetresPerInch;

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
  painter.drawText(
      dots(x + 102, y),
      QStringLiteral("must measure 100 mm: print at full size, not fitted to the page"));
}

void paintCross(QPainter& painter, double x, double y, const Theme& theme) {
  painter.setPen(QPen(theme.mark, 0.15 * kDotsPerMm));
  painter.drawLine(dots(x - 3, y), dots(x + 3, y));
  painter.drawLine(dots(x, y - 3), dots(x, y + 3));
}

} // namespace

SheetLayout sheetLayout(const std::vector<FlatPiece>& pieces, const Design& design) {
  const SheetSize& sheet = sheetByKey(design.settings.sheet);
  // The footer with the ruler takes its strip of every sheet.
  return layOut(pieces, sheet.width_mm, sheet.height_mm, kMargin_mm, kGap_mm, true, kFooter_mm);
}

Result<void> writeSheetsPdf(const Assembly& assembly, const Design& design,
                            const std::string& path) {
  const std::vector<FlatPiece> pieces = piecesToCut(assembly, design);
  const SheetLayout layout = sheetLayout(pieces, design);
  const double width = layout.width_mm, height = layout.height_mm;
  FlatStyle style;
  style.fillSheet = false;
  style.lineWidth_px = 0.25 * kDotsPerMm;

  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setPageSize(
        QPageSize(QSizeF(width, height), QPageSize::Millimeter, QString(), QPageSize::ExactMatch));
    writer.setPageMargins(QMarginsF(0, 0, 0, 0));
    writer.setResolution(kDotsPerInch);
    writer.setTitle(QString::fromStdString(design.title));
    writer.setCreator(QStringLiteral("Hinge Lantern"));
    QPainter painter(&writer);
    int page = 0;
    bool withoutRuler = false;
    const auto footer = [&](const QString& text) {
      paintRuler(painter, kMargin_mm, height - 8, style.theme);
      painter.setPen(style.theme.cut);
      painter.setFont(fontOf(2.8));
      painter.drawText(dots(kMargin_mm, height - 3.5), text);
    };
    // A sheet has its y upwards, paper downwards.
    const auto transformAt = [&](const SheetPlace& place, double shiftX, double shiftY) {
      QTransform toSheet = place.turned
                               ? QTransform(0, 1, -1, 0, place.offset.x(), place.offset.y())
                               : QTransform(1, 0, 0, 1, place.offset.x(), place.offset.y());
      return toSheet * QTransform(kDotsPerMm, 0, 0, -kDotsPerMm, -shiftX * kDotsPerMm,
                                  (height - kFooter_mm + shiftY) * kDotsPerMm);
    };
    const auto label = [&](const FlatPiece& piece, const QTransform& transform) {
      painter.setPen(style.theme.mark);
      painter.setFont(fontOf(3.2));
      for (const FlatLabel& text : piece.labels) {
        const auto& owner = assembly.pieces[text.piece].owner;
        painter.drawText(transform.map(QPointF(text.at.x(), text.at.y())),
                         QString::fromStdString(owner ? nameOf(design, *owner) : "card"));
      }
    };
    for (int sheet = 0; sheet < layout.sheets; ++sheet) {
      std::vector<const SheetPlace*> here;
      for (const SheetPlace& place : layout.places)
        if (place.sheet == sheet) here.push_back(&place);
      Box2 extent;
      for (const SheetPlace* place : here) {
        const FlatPiece& piece = *std::ranges::find(pieces, place->piece, &FlatPiece::piece);
        for (const Vec2& p : {piece.bounds.low, piece.bounds.high})
          extent.add(place->onSheet(p));
      }
      const bool tiled = here.front()->oversize, whole = here.front()->toTheEdge;
      const double usableX = width - 2 * kMargin_mm, usableY = height - kFooter_mm - 2 * kMargin_mm;
      const auto tiles = [](double size, double usable) {
        return size <= usable
                   ? 1
                   : 1 + static_cast<int>(std::ceil((size - usable) / (usable - kOverlap_mm)));
      };
      const int nx = tiled ? tiles(extent.size().x(), usableX) : 1,
                ny = tiled ? tiles(extent.size().y(), usableY) : 1;
      for (int iy = 0; iy < ny; ++iy)
        for (int ix = 0; ix < nx; ++ix) {
          if (page++ > 0) writer.newPage();
          const double shiftX = ix * (usableX - kOverlap_mm), shiftY = iy * (usableY - kOverlap_mm);
          painter.save();
          if (!whole)
            painter.setClipRect(
                QRectF(dots(kMargin_mm - 1, kMargin_mm - 1),
                       dots(width - kMargin_mm + 1, height - kFooter_mm - kMargin_mm + 1)));
          for (const SheetPlace* place : here) {
            const FlatPiece& piece = *std::ranges::find(pieces, place->piece, &FlatPiece::piece);
            const QTransform transform = transformAt(*place, shiftX, shiftY);
            paintFlatPiece(painter, assembly, piece, transform, style);
            label(piece, transform);
          }
          painter.restore();
          if (nx * ny > 1)
            for (double x :
                 {kMargin_mm + 0.5 * kOverlap_mm, width - kMargin_mm - 0.5 * kOverlap_mm})
              for (double y : {kMargin_mm + 0.5 * kOverlap_mm,
                               height - kFooter_mm - kMargin_mm - 0.5 * kOverlap_mm})
                paintCross(painter, x, y, style.theme);
          QString text = QStringLiteral("%1  sheet %2 of %3")
                             .arg(QString::fromStdString(design.title))
                             .arg(sheet + 1)
                             .arg(layout.sheets);
          if (nx * ny > 1)
            text += QStringLiteral(", part %1 of %2: join at the crosses")
                        .arg(iy * nx + ix + 1)
                        .arg(nx * ny);
          // A piece that takes the whole sheet leaves no place for ruler and name.
          if (!whole) footer(text);
          withoutRuler = withoutRuler || whole;
        }
    }
    if (withoutRuler) {
      writer.newPage();
      footer(QStringLiteral("%1  ruler for the sheets that are printed to the edge")
                 .arg(QString::fromStdString(design.title)));
    }
    painter.end();
  }
  return writeFile(path, std::string_view(buffer.data().constData(),
                                          static_cast<std::size_t>(buffer.data().size())));
}

} // namespace hinge
