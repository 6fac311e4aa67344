// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/production/cut_plan.h"

namespace hinge {

/// What a tool does along a stroke.
enum class StrokeKind { ScoreMountain, ScoreValley, CutInside, CutOutline };
std::string_view keyOf(StrokeKind kind); ///< "score-mountain", ..., also the layers of drawings

/// One way of a tool over a sheet, in the sheet's frame (mm, y up).
struct ToolStroke {
  StrokeKind kind = StrokeKind::CutOutline;
  std::vector<Vec2> points;
  bool closed = false;
  std::size_t part = 0; ///< in the plan
};

/// Everything that is scored and cut of one sheet, in an order in which nothing comes loose before
/// it is done: all scores; then what lies in the openings of other parts before those openings, and
/// of each part what is inside before its outline. Strokes of a kind follow one another by short
/// ways.
std::vector<ToolStroke> strokesOf(const CutPlan& plan, std::size_t sheet);

} // namespace hinge
