// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/paper/paper.h"
#include <QBrush>
#include <QColor>

namespace hinge {

QColor toQColor(const Colour& colour);
/// The colour of a side; of a printed face what its inks come to from afar.
QColor meanColour(const Paper& paper, bool back);
/// How a side is painted where a unit is a millimetre and y points up; a pattern has its first
/// repeat at the origin. `pixelsPerMm` is how large it will be seen. Film lets through what is
/// below. Repeats are kept as images.
QBrush paperBrush(const Paper& paper, bool back, double pixelsPerMm);

} // namespace hinge
