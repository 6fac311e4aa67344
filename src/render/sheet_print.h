// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/production/cut_plan.h"
#include "render/sheet_painter.h"

namespace hinge {

constexpr double kBleed_mm = 3;  ///< of a print past the cuts, for hands that are not exact
constexpr double kTick_mm = 3.5; ///< of the marks beside a print that covers its lines

/// The print of a part's face, or of its back, over its cuts by the bleed. A paper without a
/// pattern has its colour.
void paintPrint(QPainter& painter, const Design& design, const CutPart& part,
                const PartPlace& place, bool back, const QTransform& toPixels, double pixelsPerMm);

/// Cuts and scores alone, light beneath so that they can be seen on dark prints.
void paintCutLines(QPainter& painter, const CutPart& part, const PartPlace& place,
                   const QTransform& toPixels, const FlatStyle& style);

/// Short marks past the bleed, in line with the scores that end at the outline and with the edges
/// at its corners: where lines lie that a print has covered.
void paintTicks(QPainter& painter, const CutPart& part, const PartPlace& place,
                const QTransform& toPixels, const FlatStyle& style);

} // namespace hinge
