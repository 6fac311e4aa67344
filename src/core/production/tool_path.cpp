// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/tool_path.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

double lengthBetween(const Vec2& from, const ToolStroke& stroke) {
  const double there = (stroke.points.front() - from).norm();
  return stroke.closed ? there : std::min(there, (stroke.points.back() - from).norm());
}

/// Puts strokes in an order of short ways, from `at` on; open ones are turned round where that is
/// nearer.
void appendNearest(std::vector<ToolStroke> strokes, Vec2& at, std::vector<ToolStroke>& out) {
  while (!strokes.empty()) {
    const auto next = std::ranges::min_element(
        strokes, {}, [&](const ToolStroke& stroke) { return lengthBetween(at, stroke); });
    if (!next->closed && (next->points.back() - at).norm() < (next->points.front() - at).norm())
      std::ranges::reverse(next->points);
    at = next->closed ? next->points.front() : next->points.back();
    out.push_back(std::move(*next));
    strokes.erase(next);
  }
}

/// In how many other parts' rims a part lies.
std::vector<int> levelsOf(const std::vector<Region>& parts) {
  std::vector<int> levels(parts.size(), 0);
  for (std::size_t k = 0; k < parts.size(); ++k)
    for (std::size_t other = 0; other < parts.size(); ++other)
      if (other != k && contains(Region(parts[other].rim), parts[k].rim.front())) ++levels[k];
  return levels;
}

ToolStroke strokeOf(const FlatLine& line, const PartPlace& place, bool outline) {
  ToolStroke stroke;
  stroke.kind = line.kind == LineKind::Mountain ? StrokeKind::ScoreMountain
                : line.kind == LineKind::Valley ? StrokeKind::ScoreValley
                : outline                       ? StrokeKind::CutOutline
                                                : StrokeKind::CutInside;
  for (const Vec2& p : line.corners)
    stroke.points.push_back(place.onSheet(p));
  stroke.closed = line.closed, stroke.part = place.part;
  return stroke;
}

} // namespace

std::string_view keyOf(StrokeKind kind) {
  switch (kind) {
  case StrokeKind::ScoreMountain: return "score-mountain";
  case StrokeKind::ScoreValley: return "score-valley";
  case StrokeKind::CutInside: return "cut-inside";
  case StrokeKind::CutOutline: return "cut-outline";
  }
  return "";
}

std::vector<ToolStroke> strokesOf(const CutPlan& plan, std::size_t sheet) {
  const LaidSheet& here = plan.sheets[sheet];
  std::vector<Region> regions;
  for (const PartPlace& place : here.places)
    regions.push_back(onSheet(plan.parts[place.part], place));
  const std::vector<int> levels = levelsOf(regions);
  const int deepest = levels.empty() ? 0 : *std::ranges::max_element(levels);
  std::vector<ToolStroke> scores;
  std::vector<std::vector<ToolStroke>> inside(here.places.size()), outlines(here.places.size());
  for (std::size_t k = 0; k < here.places.size(); ++k) {
    const PartPlace& place = here.places[k];
    const auto& lines = plan.parts[place.part].flat.lines;
    // The rim is the closed cut with the largest area.
    const FlatLine* rim = nullptr;
    for (const FlatLine& line : lines)
      if (line.kind == LineKind::Cut && line.closed &&
          (!rim || std::abs(signedArea_mm2(line.corners)) > std::abs(signedArea_mm2(rim->corners))))
        rim = &line;
    for (const FlatLine& line : lines) {
      ToolStroke stroke = strokeOf(line, place, &line == rim);
      auto& list = line.kind != LineKind::Cut ? scores : &line == rim ? outlines[k] : inside[k];
      list.push_back(std::move(stroke));
    }
  }
  std::vector<ToolStroke> all;
  Vec2 at = Vec2::Zero();
  appendNearest(std::move(scores), at, all);
  for (int level = deepest; level >= 0; --level) {
    // Part by part, the nearest first.
    std::vector<std::size_t> waiting;
    for (std::size_t k = 0; k < levels.size(); ++k)
      if (levels[k] == level) waiting.push_back(k);
    while (!waiting.empty()) {
      const auto next = std::ranges::min_element(
          waiting, {}, [&](std::size_t k) { return (boundsOf(regions[k]).centre() - at).norm(); });
      appendNearest(std::move(inside[*next]), at, all);
      appendNearest(std::move(outlines[*next]), at, all);
      waiting.erase(next);
    }
  }
  return all;
}

} // namespace hinge
