// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stage_scene.h"
#include "core/states/lift.h"
#include "core/units/lattice.h"
#include <QLineF>
#include <algorithm>
#include <cmath>

namespace hinge {
namespace {

const QPointF kNowhere(-1000, -1000);
constexpr double kBeadReach_px = 15, kBadgeReach_px = 12;

} // namespace

bool StageScene::show(const std::shared_ptr<const Snapshot>& snapshot) {
  if (m_shown == snapshot) return false;
  const auto assembled = snapshot->assembly();
  if (!assembled) return false;
  m_shown = snapshot;
  m_assembly = *assembled;
  m_shares.assign(m_assembly->lifts.size(), 0.0);
  aim();
  return true;
}

void StageScene::open(double opening_rad, const Motion* last) {
  if (const auto motion = m_shown->motionIfReady())
    m_rest = motion->poseAt(opening_rad);
  else
    m_rest = Motion::quickPose(*m_assembly, opening_rad, last);
  m_pose = m_rest;
  dress();
  for (std::size_t k = 0; k < m_shares.size(); ++k)
    if (m_shares[k] > 0) m_pose = lifted(*m_assembly, m_pose, m_assembly->lifts[k], m_shares[k]);
}

/// Papers and layers of what is shown, as well as they are known now.
void StageScene::dress() {
  if (m_dressedFor == m_shown) return;
  const Design& design = m_shown->design();
  const auto faces = m_shown->faces();
  if (const auto seen = m_shown->seenIfReady())
    for (FaceIndex f : faces->indices())
      m_seen[(*faces)[f].key] = (*seen)[static_cast<std::size_t>(f.value)].seenAs();
  m_dressed = m_shown->dressedIfReady();
  if (m_dressed) m_dressedFor = m_shown;
  const bool plain = design.papers.size() == 1 && design.papers.front() == Paper();
  if (plain) return m_look.reset();
  if (!m_dressed) {
    std::vector<SeenClass> classes;
    for (const Face& face : *faces) {
      const auto known = m_seen.find(face.key);
      classes.push_back(known == m_seen.end() ? SeenClass::Hidden : known->second);
    }
    m_dressed = std::make_shared<const std::vector<DressedFace>>(
        dressedFaces(design, *m_assembly, *faces, classes, m_rest));
  }
  m_look = std::make_shared<const CardLook>(design, *m_assembly, *faces, *m_dressed);
}

bool StageScene::showsSide(PanelIndex panel, bool back) const {
  if (!m_pose.placed[panel]) return false;
  const Iso3 place = benchPose(*m_assembly, m_pose.opening_rad) * m_pose.panels[panel];
  const Vec3 middle = place * lift(centroidOf(m_assembly->panels[panel].outline));
  return (place.linear().col(2).dot(m_camera.eye() - middle) < 0) == back;
}

void StageScene::setShare(std::size_t lift, double share) {
  m_shares[lift] = m_assembly->lifts[lift].stopAt(share);
}

QPointF StageScene::knobOf(std::size_t lift) const {
  return middleOf(m_assembly->lifts[lift].panels.front());
}

std::optional<std::size_t> StageScene::knobAt(const QPointF& point) const {
  for (std::size_t k = 0; k < m_shares.size(); ++k)
    if (QLineF(knobOf(k), point).length() < kBadgeReach_px) return k;
  return std::nullopt;
}

double StageScene::shareAt(std::size_t lift, const QPointF& point) const {
  constexpr int kSteps = 100;
  double best = 0, nearest = 1e300;
  for (int k = 0; k <= kSteps; ++k) {
    const double share = static_cast<double>(k) / kSteps;
    const Pose pose = lifted(*m_assembly, m_rest, m_assembly->lifts[lift], share);
    const QPointF knob = middleIn(m_assembly->lifts[lift].panels.front(), pose);
    if (const double far = QLineF(knob, point).length(); far < nearest) nearest = far, best = share;
  }
  return best;
}

void StageScene::setArea(const QRectF& area) {
  m_area = area;
  aim();
}

void StageScene::orbit(double turn_rad, double height_rad) {
  m_turn += turn_rad, m_height += height_rad;
  aim();
}

void StageScene::zoom(double by) {
  m_zoom = std::clamp(m_zoom * by, 0.5, 5.0);
  aim();
}

void StageScene::lookStraight() {
  m_turn = m_height = 0, m_zoom = 1;
  aim();
}

void StageScene::aim() {
  if (!m_shown) return;
  m_camera = cameraFor(m_shown->design().card, m_area, *m_assembly);
  m_camera.turn_rad += m_turn;
  m_camera.height_rad = std::clamp(m_camera.height_rad + m_height, -0.3, 1.5);
  m_camera.scale_px *= m_zoom;
}

std::optional<QPointF> StageScene::onScreenIn(PanelIndex panel, const Vec2& flat,
                                              const Pose& pose) const {
  if (!pose.placed[panel]) return std::nullopt;
  return m_camera.project(benchPose(*m_assembly, pose.opening_rad) *
                          (pose.panels[panel] * lift(flat)));
}

QPointF StageScene::middleIn(PanelIndex panel, const Pose& pose) const {
  return onScreenIn(panel, centroidOf(m_assembly->panels[panel].outline), pose).value_or(kNowhere);
}

QPolygonF StageScene::outlineIn(PanelIndex panel, const Pose& pose) const {
  QPolygonF outline;
  if (!pose.placed[panel]) return outline;
  for (const Vec2& corner : m_assembly->panels[panel].outline.rim)
    outline << *onScreenIn(panel, corner, pose);
  return outline;
}

QPointF StageScene::beadOf(const Seat& seat) const {
  const SeatSide& side = seat.sides[0];
  if (seat.kind() == SeatKind::Face) return middleOf(side.panel);
  if (seat.kind() == SeatKind::Span)
    return 0.5 * (middleOf(side.panel) + middleOf(seat.sides[1].panel));
  const Vec3 flat = side.toPiece * Vec3(0, 0.5 * seat.length_mm, 0);
  return onScreen(side.panel, flat.head<2>()).value_or(kNowhere);
}

std::optional<QPointF> StageScene::badgeOf(const Finding& finding) const {
  for (const std::string& key : finding.elements) {
    PanelIndex panel = m_assembly->findPanel(key);
    if (!panel.valid())
      for (PanelIndex p : m_assembly->panels.indices())
        if (m_assembly->panels[p].owner && m_assembly->panels[p].owner->text() == key &&
            m_assembly->panels[p].use == PanelUse::Wall) {
          panel = p;
          break;
        }
    if (panel.valid() && m_pose.placed[panel]) return middleOf(panel);
  }
  return std::nullopt;
}

PanelIndex StageScene::panelAt(const QPointF& point) const {
  for (std::size_t k = m_drawn.size(); k-- > 0;)
    if (m_drawn[k].outline.containsPoint(point, Qt::OddEvenFill)) return m_drawn[k].panel;
  return {};
}

SeatIndex StageScene::faceAt(const QPointF& point) const {
  const PanelIndex panel = panelAt(point);
  if (!panel.valid()) return {};
  // The face is seen when the outline, anticlockwise on the paper, is so on the screen (whose y
  // points down).
  const QPolygonF outline = outlineOf(panel);
  double area = 0;
  for (int k = 0; k < outline.size(); ++k) {
    const QPointF &a = outline[k], &b = outline[(k + 1) % outline.size()];
    area += a.x() * b.y() - b.x() * a.y();
  }
  return m_assembly->seats.find(m_assembly->panels[panel].key + (area < 0 ? "" : "-back"));
}

SeatIndex StageScene::seatAt(const QPointF& point) const {
  SeatIndex best;
  double nearest = kBeadReach_px;
  for (SeatIndex s : m_assembly->seats.indices()) {
    if (m_assembly->seats[s].kind() == SeatKind::Face) continue;
    const double d = QLineF(beadOf(m_assembly->seats[s]), point).length();
    if (d < nearest) nearest = d, best = s;
  }
  return best.valid() ? best : faceAt(point);
}

int StageScene::badgeAt(const QPointF& point, const std::vector<Finding>& findings) const {
  for (std::size_t k = 0; k < findings.size(); ++k)
    if (const auto place = badgeOf(findings[k]);
        place && QLineF(*place, point).length() < kBadgeReach_px)
      return static_cast<int>(k);
  return -1;
}

std::optional<PickedPoint> StageScene::pickedAt(const QPointF& point, double lattice_mm) const {
  const SeatIndex seat = faceAt(point);
  if (!seat.valid()) return std::nullopt;
  const Seat& face = m_assembly->seats[seat];
  PickedPoint picked{face.sides[0].panel, face.key};
  // Two unknowns, solved by Newton steps on the screen.
  Vec2 at = centroidOf(m_assembly->panels[picked.panel].outline);
  const auto missed = [&](const Vec2& p) {
    const QPointF q = *onScreen(picked.panel, p) - point;
    return Vec2(q.x(), q.y());
  };
  for (int k = 0; k < 20; ++k) {
    const Vec2 miss = missed(at);
    Eigen::Matrix2d slope;
    slope << missed(at + Vec2(0.1, 0)) - miss, missed(at + Vec2(0, 0.1)) - miss;
    if (std::abs(slope.determinant()) < 1e-9) return std::nullopt;
    at -= 0.1 * slope.inverse() * miss;
    if (miss.norm() < 1e-6) break;
  }
  const auto snapped = [&](const Vec2& p) {
    if (lattice_mm <= 0) return p;
    return Vec2(onLattice(p.x(), lattice_mm), onLattice(p.y(), lattice_mm));
  };
  picked.onPiece = snapped(at);
  picked.onFace = snapped((inverseOf(face.sides[0].toPiece) * lift(at)).head<2>());
  return picked;
}

} // namespace hinge
