// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/sheet_painter.h"
#include "render/paper_brush.h"
#include <cmath>

namespace hinge {

QTransform toSheet(const PartPlace& place) {
  static constexpr int kCos[] = {1, 0, -1, 0}, kSin[] = {0, 1, 0, -1};
  const int c = kCos[place.quarters & 3], s = kSin[place.quarters & 3];
  return QTransform(c, s, -s, c, place.offset.x(), place.offset.y());
}

void paintPaper(QPainter& painter, const Paper& paper, const QRectF& sheet_mm,
                const QTransform& toPixels) {
  painter.save();
  painter.setTransform(toPixels, true);
  painter.fillRect(sheet_mm, paperBrush(paper, false, std::sqrt(std::abs(toPixels.determinant()))));
  painter.restore();
}

std::vector<PanelIndex> unseenFaces(const KeyedVector<FaceIndex, Face>& faces,
                                    const std::vector<FaceSeen>& seen) {
  std::vector<PanelIndex> all;
  for (FaceIndex f : faces.indices())
    if (!faces[f].back && seen[static_cast<std::size_t>(f.value)].seenAs() == SeenClass::Hidden)
      all.push_back(faces[f].panel);
  return all;
}

void paintPart(QPainter& painter, const Assembly& assembly, const Design& design,
               const CutPart& part, const PartPlace& place, bool chosen, const QTransform& toPixels,
               const SheetStyle& style) {
  const QTransform toHere = toSheet(place) * toPixels;
  const QPainterPath outline = toPath(part.outline, toHere);
  if (style.papers) {
    constexpr float kVeil = 0.74f, kChosenVeil = 0.84f;
    QColor veil = style.lines.theme.sheet;
    veil.setAlphaF(chosen ? kChosenVeil : kVeil);
    painter.fillPath(outline, veil);
  }
  FlatStyle lines = style.lines;
  lines.fillSheet = false;
  paintFlatPiece(painter, assembly, part.flat, toHere, lines);
  if (part.mat == 0)
    for (PanelIndex panel : style.unseen)
      if (assembly.panels[panel].piece == part.flat.piece)
        paintCross(painter, assembly.panels[panel].outline, toHere,
                   QPen(style.lines.theme.mark, 1.2 * style.lines.lineWidth_px));
  if (part.mat == 0) {
    paintLabels(painter, design, assembly, part.flat, toHere, style.pixelsPerMm, lines.theme.cut);
  } else {
    QFont font(QStringLiteral("Lato"));
    font.setPixelSize(std::max(9, static_cast<int>(3.2 * style.pixelsPerMm)));
    painter.setFont(font);
    painter.setPen(lines.theme.cut);
    const double far = 20 * style.pixelsPerMm; // room for the number on the narrowest layer
    painter.drawText(outline.boundingRect().adjusted(-far, -far, far, far), Qt::AlignCenter,
                     QStringLiteral("%1").arg(part.mat));
  }
  if (chosen) {
    painter.setPen(QPen(style.accent, 3));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(outline);
  }
}

} // namespace hinge
