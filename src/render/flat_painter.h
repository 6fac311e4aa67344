// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/production/labels.h"
#include "render/card_look.h"
#include "render/theme.h"
#include <QPainter>
#include <QPainterPath>

namespace hinge {

/// Our line code, the same on screen, on paper and in the legend: cut is a plain line; a mountain
/// is a long dash with two beats; a valley is a row of beads; glue is a field of slanted strokes.
QPen linePen(LineKind kind, const Theme& theme, double width_px);
QString lineName(LineKind kind);

struct FlatStyle {
  Theme theme = Theme::light();
  double lineWidth_px = 1.4;
  bool fillSheet = true; ///< paper colour inside the piece
  bool glue = true, marks = true;
  std::shared_ptr<const CardLook> look; ///< papers and layers of the face side; null: plain
};

/// Draws the piece with `toPixels` from its flat frame to the painter's coordinates.
void paintFlatPiece(QPainter& painter, const Assembly& assembly, const FlatPiece& piece,
                    const QTransform& toPixels, const FlatStyle& style);

/// Writes the piece's name and the letters of its panels, upright or running upwards however the
/// piece is turned. `pixelsPerMm` is the scale of `toPixels`.
void paintLabels(QPainter& painter, const Design& design, const Assembly& assembly,
                 const FlatPiece& piece, const QTransform& toPixels, double pixelsPerMm,
                 const QColor& colour);

/// Fills one side of a panel with its papers.
void paintCoats(QPainter& painter, std::span<const Coat> coats, const QTransform& toPixels);

/// Slanted strokes inside an area, `gap` apart, drawn as lines so that they stay crisp in vector
/// files.
void hatch(QPainter& painter, const QPainterPath& area, const QColor& colour, double gap,
           double width);

/// A pencil cross in the middle of a panel, on the paper it has there.
void paintCross(QPainter& painter, const Region& outline, const QTransform& toPixels,
                const QPen& pen, double most_mm = 6);

/// Rim and holes, to be filled by the odd-even rule.
QPainterPath toPath(const Region& region, const QTransform& transform);
QPolygonF toPolygon(const std::vector<Vec2>& corners, const QTransform& transform);

} // namespace hinge
