// SPDX-License-Identifier: GPL-3.0-or-later
#include "render/step_picture.h"
#include "render/flat_steps.h"
#include "render/folding_step.h"
#include "render/scene_painter.h"
#include "render/stage_painter.h"
#include "words/plan_words.h"
#include <QBuffer>
#include <QPaintEngine>
#include <QSvgGenerator>

namespace hinge {
namespace {

/// How far through it a step is shown, when nothing moves: before paper is brought, after it is
/// folded.
double tellingMost(WorkKind kind) {
  switch (kind) {
  case WorkKind::Fold: return 1;
  case WorkKind::Open: return 0.45;
  default: return 0;
  }
}

} // namespace

StepPainter::StepPainter(std::shared_ptr<const PlannedWork> work)
    : m_work(std::move(work)), m_scenes(m_work->plan, *m_work->motion, *m_work->stack,
                                        m_work->design().settings.foldClearance_mm),
      m_look(lookOf(*m_work->snapshot)) {}

bool StepPainter::moves(std::size_t step) const {
  switch (m_work->plan.steps[step].kind) {
  case WorkKind::Fold:
  case WorkKind::DryFit:
  case WorkKind::Join:
  case WorkKind::Open: return true;
  default: return false;
  }
}

void StepPainter::paint(QPainter& painter, const QRectF& area, std::size_t number,
                        std::optional<double> progress) const {
  const WorkStep& step = m_work->plan.steps[number];
  const MakingStyle style(area);
  const double t = progress.value_or(tellingMost(step.kind));
  if (step.kind == WorkKind::Ready || step.kind == WorkKind::Finish)
    return paintCover(painter, area);
  if (step.kind == WorkKind::Fold) return paintFolding(painter, area, *m_work, step, t, style);
  if (!m_scenes.builds(number)) return paintFlatStep(painter, area, *m_work, step, style);
  const StepScene scene = m_scenes.at(number, t);
  if (scene.anything())
    paintScene(painter, area, m_work->assembly(), scene, eyeOn(number, area), style);
  if (step.kind == WorkKind::Wait)
    paintHourglass(painter, area.topRight() + QPointF(-30, 36) * style.unit,
                   QString::fromStdString(sayTime(step.waits_s)), style);
}

Camera StepPainter::eyeOn(std::size_t number, const QRectF& area) const {
  const auto key = std::tuple(number, area.left(), area.top(), area.width(), area.height());
  {
    const std::lock_guard guard(m_lock);
    if (const auto known = m_eyes.find(key); known != m_eyes.end()) return known->second;
  }
  std::vector<StepScene> others;
  if (moves(number))
    for (double at : {0.0, 0.5, 1.0})
      others.push_back(m_scenes.at(number, at));
  const StepScene begin = m_scenes.at(number, tellingMost(m_work->plan.steps[number].kind));
  const Camera eye = viewOn(m_work->design().card, m_work->assembly(), begin, others, area);
  const std::lock_guard guard(m_lock);
  return m_eyes.emplace(key, eye).first->second;
}

void StepPainter::paintCover(QPainter& painter, const QRectF& area) const {
  // Light and patterns of the standing card need clipping, which SVG files have not.
  if (painter.paintEngine()->type() == QPaintEngine::SVG) {
    QImage image((2 * area.size()).toSize(), QImage::Format_ARGB32_Premultiplied);
    image.fill(Qt::transparent);
    QPainter inside(&image);
    paintCover(inside, QRectF(QPointF(0, 0), QSizeF(image.size())));
    inside.end();
    return painter.drawImage(area, image);
  }
  const double opening =
      drawableOpening(displayOpening_rad(m_work->design().card, m_work->assembly()));
  const Pose pose = m_work->motion->poseAt(opening);
  StageStyle style;
  style.background = false;
  style.look = m_look;
  style.bench = benchPose(m_work->assembly(), pose.opening_rad);
  paintStage(painter, area, m_work->assembly(), pose,
             cameraAt(m_work->design().card, area, m_work->assembly(), pose, *style.bench), style);
}

QImage onWhite(QSize size, const std::function<void(QPainter&, const QRectF&)>& paint) {
  QImage image(size, QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::white);
  QPainter p(&image);
  p.setRenderHint(QPainter::Antialiasing);
  const double border = 0.02 * size.width();
  paint(p, QRectF(QPointF(0, 0), QSizeF(size)).adjusted(border, border, -border, -border));
  return image;
}

QImage stepImage(const StepPainter& painter, std::size_t step, QSize size,
                 std::optional<double> progress) {
  return onWhite(size,
                 [&](QPainter& p, const QRectF& area) { painter.paint(p, area, step, progress); });
}

QByteArray stepSvg(const StepPainter& painter, std::size_t step, QSize size, const QString& title,
                   std::optional<double> progress) {
  QBuffer buffer;
  buffer.open(QIODevice::WriteOnly);
  QSvgGenerator svg;
  svg.setOutputDevice(&buffer);
  svg.setSize(size);
  svg.setViewBox(QRect(QPoint(0, 0), size));
  svg.setTitle(title.toHtmlEscaped()); // the generator writes it as it is
  svg.setDescription(QStringLiteral("Hinge Lantern"));
  {
    QPainter p(&svg);
    painter.paint(p, QRectF(QPointF(0, 0), QSizeF(size)), step, progress);
  }
  return buffer.data();
}

} // namespace hinge
