// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/live_picture.h"
#include "app/background.h"
#include "app/look.h"
#include "app/saying.h"
#include "render/stage_painter.h"
#include <QApplication>
#include <QPainter>
#include <QPainterPath>
#include <QPointer>
#include <cmath>

namespace hinge {

LivePicture::LivePicture(QString word, QWidget* parent)
    : QToolButton(parent), m_word(std::move(word)) {
  setFixedSize(168, 132);
  setEnabled(false);
  m_timer.setInterval(40);
  connect(&m_timer, &QTimer::timeout, this, [this] {
    // Whole cards come by the dozen: only the one that is looked at moves.
    if (!m_added && !hot()) return;
    m_time += 0.04;
    update();
  });
}

void LivePicture::showCard(const Design& design, std::optional<StructureId> added) {
  m_stop.request_stop();
  auto snapshot = std::make_shared<const Snapshot>(design);
  const auto assembled = snapshot->assembly();
  if (!assembled) return showNothing(said(assembled.error()));
  m_snapshot = std::move(snapshot), m_added = added;
  m_assembly = *assembled;
  m_motion.reset();
  m_stop = std::stop_source();
  // Free pieces have to be put together, which may take a while; until then they are left out.
  if (std::ranges::any_of(m_assembly->placements, [](const Placement& p) { return !p.poses; })) {
    runInBackground(
        [shown = m_snapshot, stop = m_stop.get_token(), self = QPointer<LivePicture>(this)] {
          auto motion = shown->motion(stop);
          if (!motion) return;
          QMetaObject::invokeMethod(
              qApp,
              [self, shown, motion] {
                if (!self || self->m_snapshot != shown) return;
                self->m_motion = motion;
                if (self->m_added) self->lookAtAdded();
                self->update();
              },
              Qt::QueuedConnection);
        });
  }
  m_look.reset();
  lookAtPapers();
  m_camera = cameraFor(this->design().card, QRectF(rect()).adjusted(6, 6, -6, -6), *m_assembly);
  if (added) lookAtAdded();
  setEnabled(true);
  m_timer.start();
  update();
}

/// Papers and layers come when they are known.
void LivePicture::lookAtPapers() {
  if (design().dressing.empty() && design().papers.size() == 1) return;
  runInBackground(
      [shown = m_snapshot, stop = m_stop.get_token(), self = QPointer<LivePicture>(this)] {
        if (!shown->dressed(stop)) return;
        QMetaObject::invokeMethod(
            qApp,
            [self, shown] {
              if (!self || self->m_snapshot != shown) return;
              self->m_look = lookOf(*shown);
              self->update();
            },
            Qt::QueuedConnection);
      });
}

Pose LivePicture::poseAt(double opening_rad) const {
  return m_motion ? m_motion->poseAt(opening_rad) : Motion::quickPose(*m_assembly, opening_rad);
}

void LivePicture::showNothing(const QString& word) {
  m_word = word;
  update();
}

/// So near that the new structure fills half of the picture when the card is half open.
void LivePicture::lookAtAdded() {
  m_camera = cameraFor(design().card, QRectF(rect()).adjusted(6, 6, -6, -6), *m_assembly);
  const QRectF area = QRectF(rect()).adjusted(6, 6, -6, -6);
  QRectF box;
  for (double deg : {60.0, 120.0}) {
    const Pose pose = poseAt(radians(deg));
    for (PanelIndex panel : m_assembly->panels.indices()) {
      if (m_assembly->panels[panel].owner != m_added || !pose.placed[panel]) continue;
      QPolygonF outline;
      for (const Vec2& c : m_assembly->panels[panel].outline.rim)
        outline << m_camera.project(benchPose(*m_assembly, pose.opening_rad) *
                                    (pose.panels[panel] * lift(c)));
      box = box.isNull() ? outline.boundingRect() : box.united(outline.boundingRect());
    }
  }
  if (box.isNull()) return;
  const double nearer = std::clamp(
      0.55 * std::min(area.width() / box.width(), area.height() / box.height()), 1.0, 8.0);
  m_camera.centre = area.center() + nearer * (m_camera.centre - box.center());
  m_camera.scale_px *= nearer;
}

void LivePicture::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  QPainterPath clip;
  clip.addRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 7, 7);
  p.setClipPath(clip);
  if (m_assembly) {
    // Near a new structure it moves to and fro about the half-open card, a whole card about the way
    // it is shown.
    const double middle = m_added ? 95 : std::clamp(design().card.display_deg, 60.0, 130.0),
                 swing = m_added ? 70 : 50;
    StageStyle style;
    style.theme = Look::theme();
    style.selected = m_added;
    style.look = m_look;
    paintStage(p, rect(), *m_assembly,
               poseAt(drawableOpening(radians(middle + swing * std::sin(m_time * 1.1)))), m_camera,
               style);
  } else {
    p.fillRect(rect(), Look::theme().stageBottom);
    p.setPen(Look::theme().stageSoft);
    p.drawText(rect().adjusted(6, 6, -6, -6), Qt::AlignCenter | Qt::TextWordWrap, m_word);
  }
  p.setClipping(false);
  p.setPen(QPen(hot() ? Look::theme().accent : Look::theme().line, hot() ? 2.5 : 1));
  p.setBrush(Qt::NoBrush);
  p.drawRoundedRect(QRectF(rect()).adjusted(1.5, 1.5, -1.5, -1.5), 7, 7);
}

} // namespace hinge
