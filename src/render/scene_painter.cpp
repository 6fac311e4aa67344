// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/scene_painter.h"
#include "core/structures/names.h"
#include "render/flat_painter.h"
#include "render/pose_faces.h"
#include "render/stage_painter.h"
#include <algorithm>
#include <cmath>
#include <set>

namespace hinge {
namespace {

constexpr double kInset_mm = 8; ///< details smaller than this are shown larger
constexpr double kMagnified = 2.6;
constexpr double kShare = 0.84; ///< of the area that paper takes
constexpr double kFlatHeight_rad = 0.95, kMuchBetter = 1.6;

class ScenePainter {
public:
  ScenePainter(const QRectF& area, const Assembly& assembly, const StepScene& scene,
               const Camera& camera, const MakingStyle& style)
      : m_area(area), m_assembly(assembly), m_scene(scene), m_camera(camera), m_style(style),
        m_fresh(scene.fresh.begin(), scene.fresh.end()), m_map(area) {
    Lying lying(assembly, scene.pose);
    std::vector<SpaceFace> faces;
    for (PanelIndex panel : assembly.panels.indices()) {
      m_places.push_back(Iso3::Identity());
      if (!scene.pose.placed[panel]) continue;
      const bool flat = !scene.off.empty() && !scene.off[panel].isZero();
      m_places.back() =
          flat ? scene.bench * Eigen::Translation3d(scene.off[panel]) * scene.pose.panels[panel]
               : drawnAt(panel, scene.pose, scene.bench, lying);
      for (const Polygon& part : convexParts(assembly.panels[panel].outline))
        faces.push_back(spaceFace(part, assembly.panels[panel].outline, m_places.back(),
                                  static_cast<int>(panel.value)));
    }
    m_faces = backToFront(std::move(faces), camera.eye());
    m_partsOf.assign(assembly.panels.size(), 0);
    for (const SpaceFace& face : m_faces)
      ++m_partsOf[PanelIndex(face.source)];
    for (const SpaceFace& face : m_faces)
      m_map.fill(onScreen(face, camera), SeenMap::kFirst + face.source);
  }

  /// How much is seen of what is new and of where it goes.
  double telling() const {
    double seen = 0;
    for (PanelIndex panel : m_scene.fresh)
      seen += m_map.seen(SeenMap::kFirst + panel.value);
    for (const GlueSpot& spot : m_scene.glue)
      if (spot.onBack == seenFromBack(spot.panel)) {
        double share = 0;
        for (const Region& part : spot.where)
          share += area_mm2(part);
        share /= std::max(1.0, area_mm2(m_assembly.panels[spot.panel].outline));
        seen += 2 * std::min(1.0, share) * m_map.seen(SeenMap::kFirst + spot.panel.value);
      }
    // By the size of the paper, not by that of the picture.
    return seen / (m_camera.scale_px * m_camera.scale_px);
  }

  void paper(QPainter& p) const {
    for (std::size_t k = 0; k < m_faces.size();) {
      const PanelIndex panel(m_faces[k].source);
      std::vector<std::size_t> parts;
      for (; k < m_faces.size() && m_faces[k].source == panel.value; ++k)
        parts.push_back(k);
      paintPanel(p, panel, parts);
    }
    if (!m_within) ties(p);
  }

  void ways(QPainter& p) {
    for (const std::vector<Vec3>& way : m_scene.ways) {
      QPolygonF line;
      for (const Vec3& at : way)
        line << m_camera.project(at);
      paintWay(p, line, m_style);
      m_map.take(line, 14 * m_style.unit);
    }
  }

  void pins(QPainter& p) {
    for (const Vec3& pin : m_scene.pins) {
      const QPointF at = m_camera.project(pin);
      p.setPen(QPen(m_style.move, 1.8 * m_style.unit));
      p.setBrush(QColor(Qt::white));
      p.drawEllipse(at, 5.5 * m_style.unit, 5.5 * m_style.unit);
      p.setBrush(m_style.move);
      p.drawEllipse(at, 1.8 * m_style.unit, 1.8 * m_style.unit);
      m_map.take(QRectF(at.x() - 6 * m_style.unit, at.y() - 6 * m_style.unit, 12 * m_style.unit,
                        12 * m_style.unit));
    }
  }

  void letters(QPainter& p) const {
    std::set<PanelIndex> named(m_scene.named.begin(), m_scene.named.end());
    for (PanelIndex panel : m_scene.fresh)
      named.insert(panel);
    for (const GlueSpot& spot : m_scene.glue)
      named.insert(spot.panel);
    for (PanelIndex panel : named) {
      // Tabs are told by where they are, unless it is about them.
      if (m_assembly.panels[panel].use == PanelUse::Tab &&
          std::ranges::count(m_scene.named, panel) == 0)
        continue;
      const auto spot = m_map.roomiest(SeenMap::kFirst + panel.value);
      const QString letter = QString::fromStdString(panelLetter(m_assembly, panel));
      if (spot && spot->room > (letter.size() > 1 ? 11 : 8) * m_style.unit)
        paintLetters(p, spot->at, letter, m_style);
    }
  }

  /// What is too small to be seen well, in a ring in the emptiest corner.
  void inset(QPainter& p, const Vec3& focus) const {
    const double r = 0.17 * std::min(m_area.width(), m_area.height());
    const QPointF at = m_camera.project(focus);
    QPointF best;
    double most = -1;
    for (double x : {m_area.left() + 1.1 * r, m_area.right() - 1.1 * r})
      for (double y : {m_area.top() + 1.1 * r, m_area.bottom() - 1.1 * r})
        if (const double empty = m_map.empty(QRectF(x - r, y - r, 2 * r, 2 * r)); empty > most)
          most = empty, best = QPointF(x, y);
    if (QLineF(best, at).length() < 1.4 * r) return; // it would hide what it shows
    Camera nearer = m_camera;
    nearer.scale_px *= kMagnified;
    nearer.centre += best - nearer.project(focus);
    p.save();
    QPainterPath ring;
    ring.addEllipse(best, r, r);
    p.setPen(QPen(m_style.soft, m_style.unit));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(at, r / kMagnified, r / kMagnified);
    const QLineF between(at, best);
    p.drawLine(between.pointAt(r / kMagnified / between.length()),
               between.pointAt(1 - r / between.length()));
    p.fillPath(ring, QColor(Qt::white));
    ScenePainter within(m_area, m_assembly, m_scene, nearer, m_style);
    within.m_within = {best, r};
    within.paper(p);
    p.restore();
    p.setPen(QPen(m_style.ink, 1.4 * m_style.unit));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(best, r, r);
  }

  /// The smallest place that gets glue and is seen there.
  std::optional<Vec3> focusOfInset() const {
    if (m_scene.least_mm >= kInset_mm || m_scene.shut) return std::nullopt;
    std::optional<Vec3> focus;
    double least = kInset_mm;
    for (const GlueSpot& spot : m_scene.glue)
      for (const Region& part : spot.where) {
        const double side = boundsOf(part).size().minCoeff();
        if (side >= least || !m_scene.pose.placed[spot.panel] ||
            (spot.lands && spot.onBack != seenFromBack(spot.panel)))
          continue;
        const Vec3 middle = placeOf(spot.panel) * lift(centroidOf(part));
        if (m_map.at(m_camera.project(middle)) != SeenMap::kFirst + spot.panel.value) continue;
        least = side, focus = middle;
      }
    return focus;
  }

private:
  const Iso3& placeOf(PanelIndex panel) const {
    return m_places[static_cast<std::size_t>(panel.value)];
  }
  bool seenFromBack(PanelIndex panel) const {
    const Iso3& place = placeOf(panel);
    const Vec3 middle = place * lift(centroidOf(m_assembly.panels[panel].outline));
    return place.linear().col(2).dot(m_camera.eye() - middle) <= 0;
  }

  QColor colourOf(PanelIndex panel, bool back) const {
    Vec3 normal = placeOf(panel).linear().col(2) * (back ? -1.0 : 1.0);
    // Light from the upper left, a little towards the eye.
    const double lit = std::clamp(0.5 + 0.5 * normal.dot(Vec3(-0.45, -0.35, 0.82)), 0.0, 1.0);
    const bool fresh = m_fresh.contains(panel);
    const QColor &a = fresh ? m_style.freshShade : m_style.shade,
                 &b = fresh ? m_style.fresh : m_style.paper;
    const double s = back ? 0.75 * lit : lit;
    const auto mixed = [&](int x, int y) { return static_cast<int>(x + (y - x) * s); };
    return {mixed(a.red(), b.red()), mixed(a.green(), b.green()), mixed(a.blue(), b.blue())};
  }

  /// What is drawn lies within a ring, if there is one. Worked out, not clipped: there is no
  /// clipping in SVG files.
  QPainterPath within(const QPainterPath& path) const {
    if (!m_within) return path;
    constexpr int kCorners = 64;
    Polygon ring;
    for (int k = 0; k < kCorners; ++k)
      ring.push_back(Vec2(m_within->first.x(), m_within->first.y()) +
                     m_within->second *
                         Vec2(std::cos(2 * kPi * k / kCorners), std::sin(2 * kPi * k / kCorners)));
    return commonOf(path, Region(ring));
  }
  static QPainterPath commonOf(const QPainterPath& path, const Region& other) {
    Region region;
    for (const QPolygonF& part : path.toSubpathPolygons()) {
      Polygon corners;
      for (const QPointF& corner : part)
        corners.push_back({corner.x(), corner.y()});
      if (corners.size() > 1 && (corners.front() - corners.back()).norm() < 1e-9)
        corners.pop_back();
      const bool rim = region.rim.empty();
      if ((signedArea_mm2(corners) > 0) != rim) std::ranges::reverse(corners);
      (rim ? region.rim : region.holes.emplace_back()) = std::move(corners);
    }
    QPainterPath out;
    if (region.empty()) return out;
    for (const Region& part : common(region, other))
      out.addPath(toPath(part, QTransform()));
    return out;
  }
  void drawLine(QPainter& p, const QPointF& a, const QPointF& b) const {
    if (!m_within) return p.drawLine(a, b);
    const QPointF d = b - a, o = a - m_within->first;
    const double dd = QPointF::dotProduct(d, d), od = QPointF::dotProduct(o, d),
                 root = od * od -
                        dd * (QPointF::dotProduct(o, o) - m_within->second * m_within->second);
    if (dd <= 0 || root <= 0) return;
    const double from = std::max(0.0, (-od - std::sqrt(root)) / dd),
                 to = std::min(1.0, (-od + std::sqrt(root)) / dd);
    if (from < to) p.drawLine(a + from * d, a + to * d);
  }

  void paintPanel(QPainter& p, PanelIndex panel, const std::vector<std::size_t>& parts) const {
    const bool back = seenFromBack(panel), fresh = m_fresh.contains(panel);
    const QColor fill = colourOf(panel, back);
    QPainterPath whole;
    whole.setFillRule(Qt::WindingFill);
    for (std::size_t k : parts) {
      QPainterPath outline;
      outline.addPolygon(onScreen(m_faces[k], m_camera));
      outline.closeSubpath();
      // A stroke of its own colour closes the seams between parts.
      p.setPen(QPen(fill, 0.8 * m_style.unit));
      p.setBrush(fill);
      p.drawPath(within(outline));
      whole.addPath(outline);
    }
    glueOn(p, panel, back, parts.size() < m_partsOf[panel] ? &whole : nullptr);
    p.setPen(QPen(m_style.ink, (fresh ? 2.1 : 0.8) * m_style.unit, Qt::SolidLine, Qt::RoundCap));
    for (std::size_t k : parts) {
      const SpaceFace& face = m_faces[k];
      const QPolygonF outline = onScreen(face, m_camera);
      for (int i = 0; i < outline.size(); ++i)
        if (face.edges[static_cast<std::size_t>(i)])
          drawLine(p, outline[i], outline[(i + 1) % outline.size()]);
    }
  }

  /// `part`: what is painted of a panel that other paper parts; null: all of it.
  void glueOn(QPainter& p, PanelIndex panel, bool back, const QPainterPath* part) const {
    for (const GlueSpot& spot : m_scene.glue) {
      if (spot.panel != panel || (spot.lands && spot.onBack != back)) continue;
      const auto map = planeOnScreen(m_assembly.panels[panel].outline, placeOf(panel), m_camera);
      if (!map) continue;
      for (const Region& region : spot.where) {
        QPainterPath path = within(map->map(toPath(region, QTransform())));
        if (part) path = path.intersected(*part);
        if (spot.lands) {
          p.setBrush(Qt::NoBrush);
          QPen pen(m_style.glue, 1.3 * m_style.unit);
          pen.setDashPattern({4, 3});
          p.setPen(pen);
          p.drawPath(path);
        } else {
          // Glue on the side that is turned away shows as thin strokes, wider apart.
          const bool under = spot.onBack != back;
          hatch(p, path, m_style.glue, (under ? 8.5 : 4.5) * m_style.unit,
                (under ? 0.8 : 1.6) * m_style.unit);
        }
      }
    }
  }

  void ties(QPainter& p) const {
    for (std::size_t k = 0; k < m_scene.ties.size(); ++k) {
      const bool fresh = k < m_scene.freshTies;
      const QPointF a = m_camera.project(m_scene.ties[k].first),
                    b = m_camera.project(m_scene.ties[k].second);
      p.setPen(QPen(fresh ? m_style.move : m_style.ink, (fresh ? 3 : 1.2) * m_style.unit,
                    fresh ? Qt::SolidLine : Qt::DashLine, Qt::RoundCap));
      p.drawLine(a, b);
      p.setBrush(fresh ? m_style.move : m_style.ink);
      p.setPen(Qt::NoPen);
      for (const QPointF& end : {a, b})
        p.drawEllipse(end, 3.2 * m_style.unit, 3.2 * m_style.unit);
    }
  }

  QRectF m_area;
  const Assembly& m_assembly;
  const StepScene& m_scene;
  Camera m_camera;
  const MakingStyle& m_style;
  std::set<PanelIndex> m_fresh;
  std::vector<Iso3> m_places;
  std::vector<SpaceFace> m_faces;
  IndexedVector<PanelIndex, std::size_t> m_partsOf;   ///< in how many parts a panel is painted
  std::optional<std::pair<QPointF, double>> m_within; ///< middle and radius of an inset
  SeenMap m_map;
};

} // namespace

Camera viewOn(const CardBase& card, const Assembly& assembly, const StepScene& scene,
              const std::vector<StepScene>& others, const QRectF& area) {
  std::vector<Vec3> corners = cornersOf(assembly, scene.pose, scene.bench);
  for (const StepScene& other : others)
    for (const Vec3& corner : cornersOf(assembly, other.pose, other.bench))
      corners.push_back(corner);
  for (const std::vector<Vec3>& way : scene.ways)
    corners.insert(corners.end(), way.begin(), way.end());
  if (corners.empty()) return viewOf(card);
  double low = 1e300, high = -1e300;
  for (const Vec3& corner : corners)
    low = std::min(low, corner.z()), high = std::max(high, corner.z());
  Camera usual = viewOf(card);
  // What lies flat is looked at from higher up.
  if (high - low < 0.3 * card.pageDepth_mm()) usual.height_rad = kFlatHeight_rad;
  const Camera first = cameraOn(usual, corners, area, kShare);
  if (scene.fresh.empty() && scene.glue.empty()) return first;
  Camera best = first;
  const MakingStyle style(area);
  double most = kMuchBetter * ScenePainter(area, assembly, scene, first, style).telling();
  // From the sides, from behind, and from below, as what is held up is looked at.
  constexpr std::pair<double, double> kOthers[] = {{-0.9, 1},      {0.9, 1}, {kPi - 0.3, 1},
                                                   {kPi + 0.6, 1}, {0, -1},  {kPi, -1}};
  for (const auto& [turn, up] : kOthers) {
    Camera other = usual;
    other.turn_rad += turn;
    other.height_rad *= up;
    other = cameraOn(other, corners, area, kShare);
    const double telling = ScenePainter(area, assembly, scene, other, style).telling();
    if (telling > most) most = telling, best = other;
  }
  return best;
}

void paintScene(QPainter& painter, const QRectF& area, const Assembly& assembly,
                const StepScene& scene, const Camera& camera, const MakingStyle& style) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  ScenePainter one(area, assembly, scene, camera, style);
  one.paper(painter);
  const auto focus = one.focusOfInset();
  one.pins(painter);
  one.ways(painter);
  one.letters(painter);
  if (focus) one.inset(painter, *focus);
  if (scene.shut) {
    const PanelIndex page = assembly.root;
    paintWeight(painter,
                camera.project(scene.bench * (scene.pose.panels[page] *
                                              lift(centroidOf(assembly.panels[page].outline)))),
                style);
  }
  painter.restore();
}

} // namespace hinge
