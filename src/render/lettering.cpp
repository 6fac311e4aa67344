// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/lettering.h"
#include <QFont>
#include <QFontMetricsF>
#include <QPainterPath>
#include <algorithm>

namespace hinge {
namespace {

constexpr double kDrawn_px = 400; ///< letters are taken from the typeface this large
constexpr double kChord_mm = 0.05;
constexpr double kStripShare = 0.22, kIntoLetters = 0.06; ///< of the capital height
constexpr double kBridge_mm = 1.2;

/// Rings of letters as areas: those inside of others are their holes.
std::vector<Region> areasOf(const std::vector<Polygon>& rings) {
  std::vector<Region> outer, inner;
  for (const Polygon& ring : rings) {
    int around = 0;
    for (const Polygon& other : rings)
      if (&other != &ring && encloses(other, ring.front())) ++around;
    Polygon wound = ring;
    if (signedArea_mm2(wound) < 0) std::ranges::reverse(wound);
    (around % 2 == 0 ? outer : inner).emplace_back(std::move(wound));
  }
  std::vector<Region> areas;
  for (const Region& letter : outer)
    for (Region& part : without(letter, inner))
      areas.push_back(std::move(part));
  return areas;
}

Region bar(double left, double right, double low, double high) {
  return Region({{left, low}, {right, low}, {right, high}, {left, high}});
}

/// Joins what does not reach the strip to it, straight down.
void bridge(std::vector<Region>& parts, double strip) {
  std::vector<Region> bridges;
  for (const Region& part : parts) {
    const Box2 box = boundsOf(part);
    if (box.low.y() <= strip) continue;
    const double x = box.centre().x();
    bridges.push_back(bar(x - 0.5 * kBridge_mm, x + 0.5 * kBridge_mm, strip - kBridge_mm,
                          box.low.y() + 0.5 * box.size().y()));
  }
  parts.insert(parts.end(), bridges.begin(), bridges.end());
}

} // namespace

std::vector<Region> lettering(const std::string& text, double capital_mm, bool onStrip) {
  QFont font(QStringLiteral("Lato"));
  font.setPixelSize(static_cast<int>(kDrawn_px));
  font.setWeight(QFont::Black);
  QPainterPath path;
  path.addText(0, 0, font, QString::fromStdString(text));
  const double scale = capital_mm / QFontMetricsF(font).capHeight();
  std::vector<Polygon> rings;
  for (const QPolygonF& drawn : path.simplified().toSubpathPolygons()) {
    Polygon ring;
    for (const QPointF& at : drawn) {
      const Vec2 point(scale * at.x(), -scale * at.y());
      if (ring.empty() || (point - ring.back()).norm() > kChord_mm) ring.push_back(point);
    }
    if (ring.size() > 3 && (ring.front() - ring.back()).norm() < kChord_mm) ring.pop_back();
    if (ring.size() > 2 && isSimple(ring)) rings.push_back(std::move(ring));
  }
  std::vector<Region> parts = areasOf(rings);
  if (parts.empty()) return parts;
  Box2 box;
  for (const Region& part : parts)
    box.add(boundsOf(part));
  if (onStrip) {
    const double top = kIntoLetters * capital_mm;
    bridge(parts, top);
    parts.push_back(bar(box.low.x() - 1, box.high.x() + 1, top - kStripShare * capital_mm, top));
    parts = united(parts);
    box = Box2();
    for (const Region& part : parts)
      box.add(boundsOf(part));
  }
  for (Region& part : parts) {
    for (Vec2& corner : part.rim)
      corner -= box.centre();
    for (Polygon& hole : part.holes)
      for (Vec2& corner : hole)
        corner -= box.centre();
  }
  return parts;
}

Topper lettered(Topper topper) {
  if (topper.shape != kLettering) return topper;
  std::vector<Region> drawn = lettering(topper.text, topper.height_mm, topper.detail >= 0.5);
  if (drawn.empty()) return topper;
  Box2 box;
  for (const Region& part : drawn)
    box.add(boundsOf(part));
  topper.outlines = std::move(drawn);
  topper.width_mm = std::clamp(box.size().x(), kLeastTopper_mm, kLargestTopper_mm);
  return topper;
}

} // namespace hinge
