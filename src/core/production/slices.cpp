// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/slices.h"
#include "core/design/design.h"
#include "core/paper/sheet_size.h"
#include "core/units/tolerances.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kSheetEdge_mm = 12; ///< of a sheet is not cut from, with the printer's margins

/// Scores of a plain strip by their place from the left; nothing when the piece is none.
struct Strip {
  Vec2 size;
  std::vector<std::pair<double, LineKind>> scores;
};
std::optional<Strip> stripOf(const FlatPiece& piece) {
  Strip strip{piece.bounds.size(), {}};
  double rim = 0;
  for (const FlatLine& line : piece.lines) {
    const auto corners = line.corners.size();
    if (line.kind != LineKind::Cut) {
      const Vec2 &a = line.corners.front(), &b = line.corners.back();
      if (corners != 2 || std::abs(a.x() - b.x()) > kSamePoint_mm ||
          std::abs(std::abs(a.y() - b.y()) - strip.size.y()) > kSamePoint_mm)
        return std::nullopt;
      strip.scores.push_back({a.x() - piece.bounds.low.x(), line.kind});
      continue;
    }
    for (std::size_t k = 0; k + (line.closed ? 0 : 1) < corners; ++k) {
      const Vec2 &a = line.corners[k], &b = line.corners[(k + 1) % corners];
      // Every cut must lie on the rectangle's rim.
      const auto on = [&](int axis, double at) {
        return std::abs(a[axis] - at) < kSamePoint_mm && std::abs(b[axis] - at) < kSamePoint_mm;
      };
      if (!on(0, piece.bounds.low.x()) && !on(0, piece.bounds.high.x()) &&
          !on(1, piece.bounds.low.y()) && !on(1, piece.bounds.high.y()))
        return std::nullopt;
      rim += (b - a).norm();
    }
  }
  if (std::abs(rim - 2 * (strip.size.x() + strip.size.y())) > 1e-3) return std::nullopt;
  std::ranges::sort(strip.scores);
  return strip;
}

bool alike(const Strip& a, const Strip& b) {
  if ((a.size - b.size).norm() > kSamePoint_mm || a.scores.size() != b.scores.size()) return false;
  for (std::size_t k = 0; k < a.scores.size(); ++k)
    if (a.scores[k].second != b.scores[k].second ||
        std::abs(a.scores[k].first - b.scores[k].first) > kSamePoint_mm)
      return false;
  return true;
}

} // namespace

std::vector<FlatPiece> takenTogether(std::vector<FlatPiece> pieces, double most_mm) {
  std::vector<std::optional<Strip>> strips;
  for (const FlatPiece& piece : pieces)
    strips.push_back(stripOf(piece));
  std::vector<FlatPiece> out;
  std::vector<char> taken(pieces.size(), 0);
  for (std::size_t i = 0; i < pieces.size(); ++i) {
    if (taken[i]) continue;
    std::vector<std::size_t> same{i};
    for (std::size_t j = i + 1; strips[i] && strips[i]->size.x() <= most_mm && j < pieces.size();
         ++j)
      if (!taken[j] && strips[j] && pieces[j].paper == pieces[i].paper &&
          alike(*strips[i], *strips[j]) &&
          static_cast<double>(same.size() + 1) * strips[i]->size.y() <= most_mm)
        same.push_back(j);
    if (same.size() == 1) {
      out.push_back(std::move(pieces[i]));
      continue;
    }
    const Strip& strip = *strips[i];
    FlatPiece wide;
    wide.piece = pieces[i].piece, wide.paper = pieces[i].paper;
    const double height = strip.size.y() * static_cast<double>(same.size());
    wide.lines.push_back({LineKind::Cut,
                          {{0, 0}, {strip.size.x(), 0}, {strip.size.x(), height}, {0, height}},
                          true});
    for (const auto& [at, kind] : strip.scores)
      wide.lines.push_back({kind, {{at, 0}, {at, height}}, false});
    for (std::size_t k = 0; k < same.size(); ++k) {
      FlatPiece& one = pieces[same[k]];
      const Vec2 by = Vec2(0, strip.size.y() * static_cast<double>(k)) - one.bounds.low;
      if (k > 0)
        wide.lines.push_back({LineKind::Cut,
                              {{0, strip.size.y() * static_cast<double>(k)},
                               {strip.size.x(), strip.size.y() * static_cast<double>(k)}},
                              false});
      for (auto part : {&FlatPiece::glue, &FlatPiece::marks})
        for (FlatArea area : one.*part) {
          area.outline = mapped(area.outline, Iso3(Eigen::Translation3d(lift(by))));
          (wide.*part).push_back(std::move(area));
        }
      for (FlatLabel label : one.labels)
        label.at += by, wide.labels.push_back(label);
      wide.slices.push_back(one.piece);
      taken[same[k]] = 1;
    }
    wide.bounds.add(Vec2(0, 0)), wide.bounds.add(Vec2(strip.size.x(), height));
    out.push_back(std::move(wide));
  }
  return out;
}

std::vector<FlatPiece> piecesToCut(std::vector<FlatPiece> pieces, const Design& design) {
  if (!design.settings.slice) return pieces;
  const SheetSize& sheet = sheetByKey(design.settings.sheet);
  return takenTogether(std::move(pieces),
                       std::min(sheet.width_mm, sheet.height_mm) - 2 * kSheetEdge_mm);
}

} // namespace hinge
