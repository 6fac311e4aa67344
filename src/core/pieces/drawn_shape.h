// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/result.h"
#include "core/design/piece_work.h"
#include "core/pieces/sheet_scanner.h"
#include <string>

namespace hinge {

/// What an opening, or the outline of a sheet, is drawn as.
enum class DrawnShape { Rectangle, Disc, Ring, Corners, Oval, Named };

/// A closed shape as a sentence says it, mm in the flat frame: "disc P across L", "oval P L x L",
/// "rectangle P L x L", "ring P from L to L towards A wide A", a shape that toppers are cut to by
/// its key ("boat P L x L": middle, width, height), two corners of a rectangle ("P to P") or the
/// corners one by one. The middle may be said as "centred" (on the sheet) or "centred on P". Places
/// are read from the lower left corner of the sheet. Curves are chords within 0.05 mm. Fails with
/// what could not be read, or what is too small to cut.
Result<Polygon> drawnShapeIn(SheetScanner& in, const PieceWork& work);

/// The middle of what lies at a point of the sheet: of a score or cut if one is within `reach_mm`,
/// else of the panel; nothing where there is no paper.
std::optional<Vec2> middleOfWhat(const PieceWork& work, const Vec2& at, double reach_mm);

/// An oval about its middle.
Polygon oval(const Vec2& middle, const Vec2& size_mm);
/// The rim of a shape that toppers are cut to; nothing for a key that none has.
std::optional<Polygon> namedShape(std::string_view key, const Vec2& middle, const Vec2& size_mm);

} // namespace hinge
