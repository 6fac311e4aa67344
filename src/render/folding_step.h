// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/model/planned.h"
#include "render/making_style.h"

namespace hinge {

/// Folding: every piece that is folded, its folds at the way they go, at a share of it.
void paintFolding(QPainter& painter, const QRectF& area, const PlannedWork& work,
                  const WorkStep& step, double progress, const MakingStyle& style);

} // namespace hinge
