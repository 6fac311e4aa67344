// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/production/labels.h"
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kSmallest_mm = 1.4;    ///< less cannot be read
constexpr double kWidthOfHeight = 0.62; ///< of a character of the program's typeface
constexpr double kLetterRoom_mm = 6;    ///< that a letter takes beside the name
constexpr double kFromFoot_mm = 8;      ///< of pages

/// A point of a region that is far from its edges, and near the middle of all that are so.
Vec2 innermost(const Region& region) {
  constexpr int kSteps = 8;
  constexpr double kFromMiddle = 0.1; ///< a millimetre aside is worth that much nearer to an edge
  const Box2 box = boundsOf(region);
  const Vec2 middle = centroidOf(region);
  Vec2 best = middle, step = box.size() / kSteps;
  double room = contains(region, best) ? distanceToOutline(region, best) : -1e300;
  for (int round = 0; round < 4; ++round) {
    const Vec2 from = best;
    for (int i = -kSteps / 2; i <= kSteps / 2; ++i)
      for (int j = -kSteps / 2; j <= kSteps / 2; ++j) {
        const Vec2 at = from + Vec2(i * step.x(), j * step.y());
        if (!contains(region, at)) continue;
        const double away = distanceToOutline(region, at) - kFromMiddle * (at - middle).norm();
        if (away > room + 1e-9) room = away, best = at;
      }
    step /= kSteps / 2;
  }
  return best;
}

/// How far a level rectangle reaches to both sides of a point when it is `half` high.
double reachAcross(const Region& region, const Vec2& at, const Vec2& way, double half) {
  const Vec2 side(-way.y(), way.x());
  double least = 1e300;
  for (double off : {-half, 0.0, half})
    for (double sense : {-1.0, 1.0}) {
      double nearest = 1e300;
      const Vec2 from = at + off * side, u = sense * way;
      for (const auto& [a, b] : edgesOf(region)) {
        const Vec2 d = b - a;
        const double den = cross2(u, d);
        if (std::abs(den) < 1e-12) continue;
        const double t = cross2(a - from, d) / den, s = cross2(a - from, u) / den;
        if (t > 0 && s >= 0 && s <= 1) nearest = std::min(nearest, t);
      }
      least = std::min(least, nearest);
    }
  return least < 1e299 ? 2 * least : 0;
}

FlatLabel labelAt(PieceIndex piece, PanelIndex panel, const Region& region, const Vec2& at) {
  const double away = distanceToOutline(region, at), half = std::min(away, 0.5 * kLabelHeight_mm);
  const Vec2 level(reachAcross(region, at, Vec2::UnitX(), half),
                   reachAcross(region, at, Vec2::UnitY(), half));
  // At least the square in the circle round it.
  return {piece, panel, at, level.cwiseMax(std::sqrt(2.0) * away)};
}

} // namespace

std::vector<FlatLabel> labelsOf(const Assembly& assembly, PieceIndex index) {
  const Piece& piece = assembly.pieces[index];
  std::vector<FlatLabel> labels;
  PanelIndex largest;
  for (PanelIndex p : piece.panels) {
    const Panel& panel = assembly.panels[p];
    if (!largest.valid() || area_mm2(panel.outline) > area_mm2(assembly.panels[largest].outline))
      largest = p;
    Vec2 at = innermost(panel.outline);
    const Box2 box = boundsOf(panel.outline);
    const Vec2 foot(box.centre().x(), box.low.y() + kFromFoot_mm);
    if (panel.use == PanelUse::Page && contains(panel.outline, foot) &&
        distanceToOutline(panel.outline, foot) > kLabelHeight_mm)
      at = foot;
    labels.push_back(labelAt(index, p, panel.outline, at));
  }
  if (!largest.valid()) return labels;
  // The name stands over the letter of the largest panel, or beside it where that is low.
  const auto on = std::ranges::find(labels, largest, &FlatLabel::panel);
  const Region& region = assembly.panels[largest].outline;
  const double half = 0.5 * kLetterRoom_mm;
  FlatLabel name = *on;
  if (on->room.y() >= 2 * kLetterRoom_mm) {
    if (assembly.panels[largest].use != PanelUse::Page)
      on->at.y() -= half, name.at.y() += half;
    else
      name.at.y() += kLetterRoom_mm;
  } else if (on->room.x() >= 2 * kLetterRoom_mm) {
    on->at.x() -= 0.5 * on->room.x() - half, name.at.x() += half;
  }
  *on = labelAt(index, largest, region, on->at);
  name = labelAt(index, {}, region, name.at);
  labels.insert(labels.begin(), name);
  return labels;
}

std::optional<Lettering> letteringOf(const FlatLabel& label, std::size_t characters,
                                     double wanted_mm) {
  const double wide = kWidthOfHeight * static_cast<double>(std::max<std::size_t>(1, characters));
  const auto height = [&](double along, double across) {
    return std::min({wanted_mm, 0.9 * along / wide, 0.8 * across});
  };
  const double level = height(label.room.x(), label.room.y()),
               upright = height(label.room.y(), label.room.x());
  const bool upwards = characters > 2 && upright > level + 0.3;
  const double best = upwards ? upright : level;
  if (best < kSmallest_mm) return std::nullopt;
  return Lettering{best, upwards};
}

} // namespace hinge
