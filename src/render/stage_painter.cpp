// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/stage_painter.h"
#include "core/geom/polygon.h"
#include "render/paper_brush.h"
#include "render/pose_faces.h"
#include <QPainterPath>
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

constexpr double kQuickMix = 0.4; ///< of near and far light in a face of one colour

constexpr double kShadeLift_mm = 0.5 * Lying::kStep_mm;

struct Source {
  PanelIndex panel;
  bool shade = false; ///< a strip of contact shadow, not paper
  double shadeAlpha = 0;
};

QColor mix(const QColor& a, const QColor& b, double share) {
  const double s = std::clamp(share, 0.0, 1.0);
  return QColor::fromRgbF(static_cast<float>(a.redF() + (b.redF() - a.redF()) * s),
                          static_cast<float>(a.greenF() + (b.greenF() - a.greenF()) * s),
                          static_cast<float>(a.blueF() + (b.blueF() - a.blueF()) * s),
                          static_cast<float>(a.alphaF() + (b.alphaF() - a.alphaF()) * s));
}

/// The light hangs over the gutter's middle, between the pages.
Vec3 lightOf(const Assembly& assembly, const Iso3& bench) {
  const Box2 page = boundsOf(assembly.panels[assembly.root].outline);
  // The flat frame of a base of leaves begins at the gutter; that of a sheet at its left end.
  return bench * Vec3(std::max(0.0, page.low.x()),
                      std::max(0.0, page.low.y()) + 0.42 * page.size().y(), 0.42 * page.size().x());
}

class Painter {
public:
  Painter(QPainter& painter, const Assembly& assembly, const Pose& pose, const Camera& camera,
          const StageStyle& style)
      : p(painter), m_assembly(assembly), m_pose(pose), m_camera(camera), m_style(style),
        m_bench(style.bench.value_or(benchPose(assembly, pose.opening_rad))),
        m_light(lightOf(assembly, m_bench)),
        m_reach(boundsOf(assembly.panels[assembly.root].outline).size().norm()),
        m_lying(assembly, pose,
                style.sheets ? std::span(style.sheets->order) : std::span<const SheetOrder>()) {}

  std::vector<DrawnFace> run() {
    collect();
    std::vector<DrawnFace> drawn;
    const std::vector<SpaceFace> faces = backToFront(std::move(m_faces), m_camera.eye());
    IndexedVector<PanelIndex, std::size_t> partsOf;
    partsOf.assign(m_assembly.panels.size(), 0);
    for (const SpaceFace& face : faces)
      if (!sourceOf(face).shade) ++partsOf[sourceOf(face).panel];
    for (std::size_t k = 0; k < faces.size();) {
      const Source& source = sourceOf(faces[k]);
      if (source.shade) {
        paintShade(onScreen(faces[k++], m_camera), source);
        continue;
      }
      // Parts of one panel that follow one another are painted as one, papers and all.
      std::vector<Part> parts;
      for (; k < faces.size() && !sourceOf(faces[k]).shade &&
             sourceOf(faces[k]).panel == source.panel;
           ++k) {
        parts.push_back({&faces[k], onScreen(faces[k], m_camera)});
        drawn.push_back({source.panel, parts.back().outline});
      }
      paintPaper(source.panel, parts, parts.size() == partsOf[source.panel]);
    }
    return drawn;
  }

private:
  /// A part of a panel, and where it is seen.
  struct Part {
    const SpaceFace* face;
    QPolygonF outline;
  };
  const Source& sourceOf(const SpaceFace& face) const {
    return m_sources[static_cast<std::size_t>(face.source)];
  }

  void collect() {
    for (PanelIndex panel : m_assembly.panels.indices()) {
      if (!m_pose.placed[panel] || ownerMissing(panel)) continue;
      const Iso3 place = drawnAt(panel, m_pose, m_bench, m_lying);
      for (const Polygon& part : convexParts(m_assembly.panels[panel].outline))
        addFace(part, m_assembly.panels[panel].outline, place, {panel});
    }
    for (const Fold& fold : m_assembly.folds)
      addContactShade(fold);
  }

  /// A structure that is out of reach at this opening is left out with its tabs.
  bool ownerMissing(PanelIndex panel) const {
    const auto& owner = m_assembly.panels[panel].owner;
    for (const Placement& placement : m_assembly.placements)
      if (owner == placement.owner) return !m_pose.placed[placement.panels.front()];
    return false;
  }

  void addFace(const Polygon& part, const Region& whole, const Iso3& place, Source source) {
    m_faces.push_back(spaceFace(part, whole, place, static_cast<int>(m_sources.size())));
    m_sources.push_back(source);
  }

  /// Where a wall stands on its host, two soft strips beside the line let it stand instead of
  /// float.
  void addContactShade(const Fold& fold) {
    const PanelIndex tab = m_assembly.panels[fold.right].use == PanelUse::Tab  ? fold.right
                           : m_assembly.panels[fold.left].use == PanelUse::Tab ? fold.left
                                                                               : PanelIndex();
    const Glue* glue = tab.valid() ? m_assembly.glueOf(tab) : nullptr;
    if (m_style.quick || !glue || !m_pose.placed[glue->host] || ownerMissing(tab) ||
        m_pose.opening_rad < radians(4))
      return;
    const Vec2 a = (glue->tabToHost * lift(fold.from)).head<2>(),
               b = (glue->tabToHost * lift(fold.to)).head<2>();
    const Vec2 d = (b - a).normalized(), n(-d.y(), d.x());
    const double side = glue->onHostFace() ? 1.0 : -1.0;
    const std::vector<Polygon> parts = convexParts(m_assembly.panels[glue->host].outline);
    for (double width : {0.8, 1.8, 3.0, 4.4, 6.0}) {
      Polygon strip{a - n * width, b - n * width, b + n * width, a + n * width};
      if (signedArea_mm2(strip) < 0) std::reverse(strip.begin(), strip.end());
      Iso3 place = m_bench * m_pose.panels[glue->host];
      place.pretranslate((kShadeLift_mm + 0.001 * width) * side * place.linear().col(2));
      for (const Polygon& part : parts)
        if (const Polygon lit = intersectConvex(strip, part); !lit.empty())
          addFace(lit, lit, place, {glue->host, true, 0.055});
    }
  }

  void paintShade(const QPolygonF& outline, const Source& source) {
    QColor shade(0x3a, 0x20, 0x18);
    shade.setAlphaF(static_cast<float>(source.shadeAlpha));
    p.setPen(Qt::NoPen);
    p.setBrush(shade);
    p.drawPolygon(outline);
  }

  /// Not quite to its ends, where it would stick out past the edge of the paper.
  void paintSeam(const QPointF& from, const QPointF& to) {
    constexpr double kShort_px = 1.2;
    const QLineF seam(from, to);
    if (seam.length() < 3 * kShort_px) return;
    const double share = kShort_px / seam.length();
    p.drawLine(seam.pointAt(share), seam.pointAt(1 - share));
  }

  /// How a side is lit: near the light, far from it, and what lies between.
  struct Light {
    QColor near, far;
    QRadialGradient glow;
  };

  /// The map of a plane about the middle of an area of it, without its perspective.
  static QTransform affineAt(const QTransform& map, const QPainterPath& area) {
    const QPointF middle = area.boundingRect().center(), at = map.map(middle),
                  x = map.map(middle + QPointF(1, 0)) - at,
                  y = map.map(middle + QPointF(0, 1)) - at;
    const QTransform turn(x.x(), x.y(), y.x(), y.y(), 0, 0);
    const QPointF moved = at - turn.map(middle);
    return {x.x(), x.y(), y.x(), y.y(), moved.x(), moved.y()};
  }

  /// The papers on a side, each lit as the card below it. What is printed is laid on as it is in
  /// daylight and then shaded.
  void paintCoats(PanelIndex panel, std::span<const Coat> coats, const std::vector<Part>& parts,
                  bool whole, const Light& light) {
    if (coats.empty()) return;
    const auto map =
        planeOnScreen(m_assembly.panels[panel].outline, m_bench * m_pose.panels[panel], m_camera);
    if (!map) return;
    p.save();
    // A panel that is seen whole needs no clipping, which is dear.
    if (!whole) {
      QPainterPath clip;
      clip.setFillRule(Qt::WindingFill);
      for (const Part& part : parts)
        clip.addPolygon(part.outline);
      p.setClipPath(clip, Qt::IntersectClip);
    }
    for (const Coat& coat : coats) {
      const QPainterPath outline = map->map(coat.outline);
      const bool printed =
          coat.paper.patterned() && !coat.back && !m_style.quick && !m_style.plainPrints;
      p.setPen(Qt::NoPen);
      if (printed) {
        // Seen from so far away one affine map serves for a whole face: perspective by the pixel is
        // dear.
        QBrush brush = paperBrush(coat.paper, false, m_camera.scale_px);
        brush.setTransform(brush.transform() * coat.pattern * affineAt(*map, coat.outline));
        p.fillPath(outline, brush);
        p.fillPath(outline, shade(light));
      } else {
        p.fillPath(outline, tinted(coat.paper, coat.back, light));
      }
      if (m_style.quick || coat.ground) continue;
      p.setPen(QPen(QColor(0x20, 0x14, 0x12, 0x50), 0.7));
      p.setBrush(Qt::NoBrush);
      p.drawPath(outline);
    }
    p.restore();
  }

  /// The light of plain card on paper of another colour.
  QBrush tinted(const Paper& paper, bool back, const Light& light) const {
    const QColor own = meanColour(paper, back), plain = toQColor(Paper::kPlain);
    const auto on = [&](const QColor& lit) {
      QColor colour = QColor::fromRgbF(std::min(1.0f, lit.redF() * own.redF() / plain.redF()),
                                       std::min(1.0f, lit.greenF() * own.greenF() / plain.greenF()),
                                       std::min(1.0f, lit.blueF() * own.blueF() / plain.blueF()));
      colour.setAlphaF(lit.alphaF() * own.alphaF());
      return colour;
    };
    if (m_style.quick) return on(mix(light.near, light.far, kQuickMix));
    QRadialGradient glow = light.glow;
    QGradientStops stops = glow.stops();
    for (QGradientStop& stop : stops)
      stop.second = on(stop.second);
    // Metal throws the light back where it falls straight.
    if (paper.surface == Surface::Foil && !back)
      stops.front().second = stops.front().second.lighter(135);
    glow.setStops(stops);
    return glow;
  }

  /// What the light of plain card takes away from white, as a veil.
  QBrush shade(const Light& light) const {
    const float lit = m_style.theme.paperLit.lightnessF();
    QRadialGradient veil = light.glow;
    QGradientStops stops = veil.stops();
    for (QGradientStop& stop : stops) {
      QColor dark = mix(stop.second, QColor(0x18, 0x10, 0x1c), 0.75);
      dark.setAlphaF(std::clamp(1.15f * (1 - stop.second.lightnessF() / lit), 0.0f, 0.8f));
      stop.second = dark;
    }
    veil.setStops(stops);
    return veil;
  }

  /// How the seen side of a face is lit, as one sheet: the parts it is drawn in must not show.
  Light lightOn(const SpaceFace& face, PanelIndex panel, bool back) const {
    const Theme& theme = m_style.theme;
    const Vec3 centre = middleOf(panel), toLight = m_light - centre;
    const double lightSide = face.normal.dot(toLight);
    const bool throughPaper = (lightSide > 0) == back;
    const double slant = std::abs(lightSide) / std::max(1.0, toLight.norm());
    // A weak cool light from above keeps the forms apart where the lantern does not reach.
    const double sky = 0.5 + 0.5 * (back ? -1.0 : 1.0) * face.normal.dot(Vec3(-0.35, -0.25, 0.90));
    QColor near, far;
    if (!throughPaper) {
      near = mix(theme.paperShade, theme.paperLit, 0.38 + 0.42 * slant + 0.25 * sky);
      far = mix(mix(theme.stageBottom, theme.paperShade, 0.72), theme.paperLit, 0.12 + 0.30 * sky);
    } else { // the outside of the lantern: the light glows through
      near = mix(theme.paperShade, theme.paperBack, 0.10 + 0.55 * slant + 0.45 * sky);
      far = mix(theme.stageBottom, theme.paperShade, 0.30 + 0.35 * sky);
    }
    const QPointF centreOnScreen = m_camera.project(m_light - face.normal * (lightSide));
    QRadialGradient glow(centreOnScreen, 0.95 * m_reach * m_camera.scale_px);
    if (m_style.ghostPages && throughPaper && m_assembly.panels[panel].use == PanelUse::Page)
      near.setAlphaF(0.22f), far.setAlphaF(0.22f);
    glow.setColorAt(0.0, near);
    glow.setColorAt(0.22, mix(near, far, 0.16));
    glow.setColorAt(0.55, mix(near, far, 0.62));
    glow.setColorAt(1.0, far);
    return {near, far, glow};
  }

  Vec3 middleOf(PanelIndex panel) const {
    return m_bench * (m_pose.panels[panel] * lift(centroidOf(m_assembly.panels[panel].outline)));
  }

  /// Parts of a panel that lie beside one another in the picture; `whole`: all there are.
  void paintPaper(PanelIndex panel, const std::vector<Part>& parts, bool whole) {
    const SpaceFace& face = *parts.front().face;
    const bool back = face.normal.dot(m_camera.eye() - middleOf(panel)) <= 0;
    const Light light = lightOn(face, panel, back);
    const auto coats = m_style.look ? m_style.look->coats(panel, back) : std::span<const Coat>();
    const bool coloured = !coats.empty() && coats.front().ground;
    const QBrush fill = coloured        ? tinted(coats.front().paper, coats.front().back, light)
                        : m_style.quick ? QBrush(mix(light.near, light.far, kQuickMix))
                                        : QBrush(light.glow);
    p.setBrush(fill);
    for (const Part& part : parts) {
      p.setPen(Qt::NoPen);
      p.drawPolygon(part.outline);
      // A stroke in the face's own colours closes the seam along a cut; stroking with a gradient is
      // dear, so only there.
      if (light.near.alphaF() < 1) continue;
      p.setPen(QPen(fill, 1.6, Qt::SolidLine, Qt::FlatCap));
      eachEdge(part, false, [&](const QPointF& a, const QPointF& b) { paintSeam(a, b); });
    }
    const bool filled = coloured && (!coats.front().paper.patterned() || coats.front().back);
    paintCoats(panel, coats.subspan(filled ? 1 : 0), parts, whole, light);
    for (const Part& part : parts)
      paintMarks(panel, part);
  }

  /// Its edges on the outline of the panel, or those that only part it.
  template <class Each> static void eachEdge(const Part& part, bool onOutline, const Each& each) {
    for (std::size_t i = 0; i < part.face->corners.size(); ++i)
      if ((part.face->edges[i] != 0) == onOutline)
        each(part.outline[static_cast<int>(i)],
             part.outline[static_cast<int>((i + 1) % part.face->corners.size())]);
  }

  /// What is said of a panel: in trouble, pointed at, chosen; and its edges.
  void paintMarks(PanelIndex index, const Part& part) {
    const Panel& panel = m_assembly.panels[index];
    const auto cover = [&](const QBrush& brush) {
      p.setPen(Qt::NoPen);
      p.setBrush(brush);
      p.drawPolygon(part.outline);
    };
    if (m_style.troubled.contains(panel.key)) {
      QColor red = Theme::light().trouble;
      red.setAlphaF(0.75f);
      cover(QBrush(red, Qt::BDiagPattern));
    }
    if (index == m_style.hoverPanel) {
      QColor veil = m_style.theme.paperEdge;
      veil.setAlphaF(0.28f);
      cover(veil);
    }
    const bool chosen = m_style.selected && panel.owner == m_style.selected;
    QColor edge = chosen ? Theme::light().accent : QColor(0x4c, 0x2f, 0x24);
    edge.setAlphaF(chosen ? 1.0f : 0.55f);
    p.setPen(QPen(edge, chosen ? 2.0 : 0.9, Qt::SolidLine, Qt::RoundCap));
    eachEdge(part, true, [&](const QPointF& a, const QPointF& b) { p.drawLine(a, b); });
  }

  QPainter& p;
  const Assembly& m_assembly;
  const Pose& m_pose;
  const Camera& m_camera;
  const StageStyle& m_style;
  Iso3 m_bench;
  Vec3 m_light;
  double m_reach;
  Lying m_lying;
  std::vector<SpaceFace> m_faces;
  std::vector<Source> m_sources;
};

} // namespace

void paintStageBackground(QPainter& painter, const QRectF& area, const Assembly& assembly,
                          const Camera& camera, const Theme& theme) {
  QLinearGradient dusk(area.topLeft(), area.bottomLeft());
  dusk.setColorAt(0, theme.stageTop);
  dusk.setColorAt(1, theme.stageBottom);
  painter.fillRect(area, dusk);
  // The pool of light on the bench round the gutter.
  const Box2 page = boundsOf(assembly.panels[assembly.root].outline);
  const QPointF middle = camera.project(Vec3(0.2 * page.size().x(), page.centre().y(), 0));
  const double radius = 1.25 * page.size().norm() * camera.scale_px;
  painter.save();
  painter.translate(middle);
  painter.scale(1.0, 0.45 + 0.3 * std::sin(camera.height_rad));
  QRadialGradient pool(QPointF(0, 0), radius);
  QColor warm(0xff, 0xc8, 0x7a);
  warm.setAlphaF(0.20f);
  pool.setColorAt(0, warm);
  warm.setAlphaF(0.07f);
  pool.setColorAt(0.5, warm);
  warm.setAlphaF(0);
  pool.setColorAt(1, warm);
  painter.setPen(Qt::NoPen);
  painter.setBrush(pool);
  painter.drawEllipse(QPointF(0, 0), radius, radius);
  painter.restore();
}

Iso3 benchPose(const Assembly& assembly, double opening_rad) {
  return assembly.onTable(opening_rad);
}

double drawableOpening(double opening_rad) {
  return std::clamp(opening_rad, radians(0.4), kPi - radians(0.02));
}

Camera viewOf(const CardBase& card) {
  Camera camera;
  const double depth = card.pageDepth_mm(), length = card.gutterLength_mm();
  camera.turn_rad = card.fold == FoldSide::Side ? 0.30 : 0.80;
  camera.height_rad = 0.60;
  camera.distance_mm = 3.4 * std::hypot(2 * depth, length);
  camera.target = Vec3(0, 0.5 * length, 0.22 * depth);
  camera.scale_px = 1;
  camera.centre = QPointF(0, 0);
  return camera;
}

namespace {

/// Brings the camera so near that what it has seen at scale 1 fills the area.
Camera broughtNear(Camera camera, const QRectF& seen, const QRectF& area, double share) {
  camera.scale_px = share * std::min(area.width() / seen.width(), area.height() / seen.height());
  camera.centre = area.center() - camera.scale_px * seen.center();
  return camera;
}

void addTo(QRectF& seen, const QPointF& q) {
  seen = seen.united(QRectF(q - QPointF(0.5, 0.5), QSizeF(1, 1)));
}

} // namespace

std::vector<Vec3> cornersOf(const Assembly& assembly, const Pose& pose, const Iso3& bench) {
  std::vector<Vec3> corners;
  for (PanelIndex p : assembly.panels.indices()) {
    if (!pose.placed[p]) continue;
    for (const Vec2& c : assembly.panels[p].outline.rim)
      corners.push_back(bench * (pose.panels[p] * lift(c)));
  }
  return corners;
}

Camera cameraOn(Camera view, const std::vector<Vec3>& corners, const QRectF& area, double share) {
  Vec3 low = Vec3::Constant(1e300), high = Vec3::Constant(-1e300);
  for (const Vec3& corner : corners)
    low = low.cwiseMin(corner), high = high.cwiseMax(corner);
  view.target = 0.5 * (low + high);
  view.scale_px = 1, view.centre = QPointF(0, 0);
  QRectF seen;
  for (const Vec3& corner : corners)
    addTo(seen, view.project(corner));
  return broughtNear(view, seen, area, share);
}

Camera cameraFor(const CardBase& card, const QRectF& area, const Assembly& assembly) {
  const Camera unit = viewOf(card);
  QRectF seen; // what the pages sweep
  for (int k = 0; k <= 12; ++k) {
    const double t = k * kPi / 12;
    const Iso3 bench = benchPose(assembly, t);
    for (const auto& [page, pose] : assembly.basePoses(t))
      for (const Vec2& corner : assembly.panels[page].outline.rim)
        addTo(seen, unit.project(bench * (pose * lift(corner))));
  }
  return broughtNear(unit, seen, area, 0.94);
}

Camera cameraAt(const CardBase& card, const QRectF& area, const Assembly& assembly,
                const Pose& pose, const Iso3& bench) {
  Camera unit = viewOf(card);
  if (card.rests == Rests::OnEdge && card.fold == FoldSide::Side) {
    // A card that stands like a book is looked into from its open side, as it is on a shelf.
    constexpr double kAside_rad = 0.18, kHeight_rad = 0.38;
    Vec3 open = Vec3::Zero();
    for (const auto& [page, place] : assembly.basePoses(pose.opening_rad))
      open += bench.linear() * place.linear().col(2);
    if (open.head<2>().norm() > 0.3) unit.turn_rad = std::atan2(open.x(), -open.y()) + kAside_rad;
    unit.height_rad = kHeight_rad;
  }
  const std::vector<Vec3> corners = cornersOf(assembly, pose, bench);
  if (corners.empty()) return cameraFor(card, area, assembly);
  return cameraOn(unit, corners, area, 0.86);
}

std::vector<DrawnFace> paintStage(QPainter& painter, const QRectF& area, const Assembly& assembly,
                                  const Pose& pose, const Camera& camera, const StageStyle& style) {
  painter.save();
  painter.setRenderHint(QPainter::Antialiasing);
  if (style.background) paintStageBackground(painter, area, assembly, camera, style.theme);
  std::vector<DrawnFace> drawn = Painter(painter, assembly, pose, camera, style).run();
  painter.restore();
  return drawn;
}

} // namespace hinge
