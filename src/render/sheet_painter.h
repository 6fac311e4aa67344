// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/dress/seen.h"
#include "core/production/cut_plan.h"
#include "render/flat_painter.h"

namespace hinge {

/// How a sheet with its parts is drawn.
struct SheetStyle {
  FlatStyle lines;
  bool papers = true; ///< the sheet in its real paper, the parts veiled so that lines are legible
  double pixelsPerMm = 1;
  std::vector<std::size_t> chosen = {}; ///< parts that stand out
  QColor accent;
  std::vector<PanelIndex> unseen =
      {}; ///< nobody ever sees their faces: marked with an X, as makers do
};

/// Panels whose face side is never seen, for SheetStyle.
std::vector<PanelIndex> unseenFaces(const KeyedVector<FaceIndex, Face>& faces,
                                    const std::vector<FaceSeen>& seen);

/// From a part's frame into that of its sheet (mm).
QTransform toSheet(const PartPlace& place);

/// The sheet's paper, from its lower left corner; `toPixels` maps millimetres with y up.
void paintPaper(QPainter& painter, const Paper& paper, const QRectF& sheet_mm,
                const QTransform& toPixels);

/// A part where it lies: its lines, its glue and marks, its name and letters; a layer has its
/// number.
void paintPart(QPainter& painter, const Assembly& assembly, const Design& design,
               const CutPart& part, const PartPlace& place, bool chosen, const QTransform& toPixels,
               const SheetStyle& style);

} // namespace hinge
