// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/model/planned.h"
#include "render/making_style.h"

namespace hinge {

/// Steps at which flat pieces lie on the table side by side: scoring, cutting, splicing, crosses,
/// pencil marks, layers, measuring. Each piece as large as all of them allow, its name below it.
void paintFlatStep(QPainter& painter, const QRectF& area, const PlannedWork& work,
                   const WorkStep& step, const MakingStyle& style);

} // namespace hinge
